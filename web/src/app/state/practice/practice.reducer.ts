/** What was practised of the song that is open, and what the server has not got yet. */
import { createFeature, createReducer, createSelector, on } from '@ngrx/store';
import type { PracticeRound } from '@wild-needle/contract';
import { practiceActions, practiceApiActions } from './practice.actions';

export interface PracticeState {
  /** Whose rounds are shown; null before any. */
  readonly songId: string | null;
  /** Of that song, in order of time. */
  readonly rounds: readonly PracticeRound[];
  /** Of any song; they are sent again with the next one, also after a reload. */
  readonly unsent: readonly PracticeRound[];
  readonly status: 'empty' | 'loading' | 'loaded' | 'failed';
}

const initialState: PracticeState = { songId: null, rounds: [], unsent: [], status: 'empty' };

/** Each round once, in order of time. */
function together(...parts: readonly (readonly PracticeRound[])[]): PracticeRound[] {
  const byId = new Map(parts.flat().map((round) => [round.id, round]));
  return [...byId.values()].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
}

export const practiceFeature = createFeature({
  name: 'practice',
  reducer: createReducer(
    initialState,
    on(practiceActions.opened, (state, { songId }): PracticeState => ({
      ...state,
      songId,
      rounds: state.songId === songId ? state.rounds : state.unsent.filter((r) => r.songId === songId),
      status: 'loading',
    })),
    on(practiceApiActions.unsentRestored, (state, { rounds }): PracticeState => ({
      ...state,
      unsent: together(rounds, state.unsent),
      rounds: together(
        state.rounds,
        rounds.filter((r) => r.songId === state.songId),
      ),
    })),
    on(practiceApiActions.roundsLoaded, (state, { songId, rounds }): PracticeState =>
      songId === state.songId
        ? { ...state, status: 'loaded', rounds: together(rounds, state.rounds) }
        : state,
    ),
    on(practiceActions.roundPlayed, (state, { round }): PracticeState => ({
      ...state,
      rounds: round.songId === state.songId ? [...state.rounds, round] : state.rounds,
      unsent: [...state.unsent, round],
    })),
    on(practiceApiActions.roundKept, (state, { id }): PracticeState => ({
      ...state,
      unsent: state.unsent.filter((r) => r.id !== id),
    })),
    on(practiceApiActions.requestFailed, (state): PracticeState =>
      state.status === 'loading' ? { ...state, status: 'failed' } : state,
    ),
  ),
  extraSelectors: ({ selectUnsent }) => ({
    selectIsWaiting: createSelector(selectUnsent, (unsent) => unsent.length > 0),
  }),
});
