import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { Guess } from '@wild-needle/contract';

export const guessesActions = createActionGroup({
  source: 'Check',
  events: {
    'Ear First Opened': emptyProps(),
    'Chord Guessed': props<{ guess: Guess }>(),
  },
});

export const guessesApiActions = createActionGroup({
  source: 'Guesses API',
  events: {
    'Guesses Loaded': props<{ guesses: Guess[] }>(),
    'Guess Kept': props<{ id: string }>(),
    'Request Failed': emptyProps(),
  },
});
