/** The shelf: every song in short, as it is searched and sorted. */
import { createFeature, createReducer, on } from '@ngrx/store';
import { SHELF_PAGE, type ShelfSort, type SongSummary } from '@wild-needle/contract';
import { shelfActions, songsApiActions } from './songs.actions';

export interface SongsState {
  readonly songs: readonly SongSummary[];
  /** There are more than were listed. */
  readonly hasMore: boolean;
  readonly search: string;
  readonly sort: ShelfSort;
  readonly status: 'loading' | 'loaded' | 'failed';
  /** Why the shelf could not be read, in words; null when it could. */
  readonly problem: string | null;
  /** Why a song could not be given its name; null when it could. */
  readonly namingProblem: string | null;
}

const initialState: SongsState = {
  songs: [],
  hasMore: false,
  search: '',
  sort: 'worked',
  status: 'loading',
  problem: null,
  namingProblem: null,
};

export const songsFeature = createFeature({
  name: 'songs',
  reducer: createReducer(
    initialState,
    on(shelfActions.searched, (state, { search }): SongsState => ({ ...state, search })),
    on(shelfActions.sorted, (state, { sort }): SongsState => ({ ...state, sort })),
    on(shelfActions.songNamed, (state): SongsState => ({ ...state, namingProblem: null })),
    on(songsApiActions.namingFailed, (state, { message }): SongsState => ({
      ...state,
      namingProblem: message,
    })),
    on(songsApiActions.songsLoaded, (state, { songs, offset }): SongsState => ({
      ...state,
      songs: [...state.songs.slice(0, offset), ...songs],
      hasMore: songs.length === SHELF_PAGE,
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
