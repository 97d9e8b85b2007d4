/** What the ear has named in the last weeks. */
import { createFeature, createReducer, on } from '@ngrx/store';
import type { Guess } from '@wild-needle/contract';
import { guessesActions, guessesApiActions } from './guesses.actions';

export interface GuessesState {
  /** In order of time. */
  readonly guesses: readonly Guess[];
  /** Those that the server has not got yet; they are sent again with the next one. */
  readonly unsent: readonly Guess[];
}

const initialState: GuessesState = { guesses: [], unsent: [] };

export const guessesFeature = createFeature({
  name: 'guesses',
  reducer: createReducer(
    initialState,
    on(guessesApiActions.guessesLoaded, (state, { guesses }): GuessesState => {
      const known = new Set(guesses.map((g) => g.id));
      return { ...state, guesses: [...guesses, ...state.unsent.filter((g) => !known.has(g.id))] };
    }),
    on(guessesActions.chordGuessed, (state, { guess }): GuessesState => ({
      guesses: [...state.guesses, guess],
      unsent: [...state.unsent, guess],
    })),
    on(guessesApiActions.guessKept, (state, { id }): GuessesState => ({
      ...state,
      unsent: state.unsent.filter((g) => g.id !== id),
    })),
  ),
});
