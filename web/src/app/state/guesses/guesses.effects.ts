import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { catchError, concatMap, from, map, of, switchMap, withLatestFrom } from 'rxjs';
import { Api } from '../../api/api';
import { guessesActions, guessesApiActions } from './guesses.actions';
import { guessesFeature } from './guesses.reducer';

/** Weeks that are shown. */
const WEEKS = 6;
const WEEK_MS = 7 * 24 * 3600 * 1000;

export const loadGuesses = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(guessesActions.earFirstOpened),
      switchMap(() =>
        api.guessesSince(new Date(Date.now() - (WEEKS + 1) * WEEK_MS)).pipe(
          map((guesses) => guessesApiActions.guessesLoaded({ guesses })),
          catchError(() => of(guessesApiActions.requestFailed())),
        ),
      ),
    ),
  { functional: true },
);

/** One after the other; what could not be sent before goes along. */
export const keepGuesses = createEffect(
  (actions$ = inject(Actions), api = inject(Api), store = inject(Store)) =>
    actions$.pipe(
      ofType(guessesActions.chordGuessed, guessesActions.earFirstOpened),
      withLatestFrom(store.select(guessesFeature.selectUnsent)),
      concatMap(([, unsent]) =>
        from(unsent).pipe(
          concatMap((guess) =>
            api.keepGuess(guess).pipe(map(() => guessesApiActions.guessKept({ id: guess.id }))),
          ),
          catchError(() => of(guessesApiActions.requestFailed())),
        ),
      ),
    ),
  { functional: true },
);
