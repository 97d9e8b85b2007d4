/** The shelf: every song in short. */
import { createFeature, createReducer, on } from '@ngrx/store';
import type { SongSummary } from '@wild-needle/contract';
import { shelfActions, songsApiActions } from './songs.actions';

export interface SongsState {
  readonly songs: readonly SongSummary[];
  readonly status: 'loading' | 'loaded' | 'failed';
  /** Why the shelf could not be read, in words; null when it could. */
  readonly problem: string | null;
}

const initialState: SongsState = { songs: [], status: 'loading', problem: null };

export const songsFeature = createFeature({
  name: 'songs',
  reducer: createReducer(
    initialState,
    on(songsApiActions.songsLoaded, (_state, { songs }): SongsState => ({
      songs,
      status: 'loaded',
      problem: null,
    })),
    on(songsApiActions.loadingFailed, (state, { message }): SongsState => ({
      ...state,
      status: 'failed',
      problem: message,
    })),
    // Gone at once; should the server refuse, the reload brings it back.
    on(shelfActions.songRemoved, (state, { songId }): SongsState => ({
      ...state,
      songs: state.songs.filter((s) => s.id !== songId),
    })),
  ),
});
