import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import { catchError, concatMap, from, map, of, switchMap, tap, withLatestFrom } from 'rxjs';
import * as z from 'zod';
import { practiceRoundSchema, type PracticeRound } from '@wild-needle/contract';
import { Api } from '../../api/api';
import { practiceActions, practiceApiActions } from './practice.actions';
import { practiceFeature } from './practice.reducer';

/** A row for each round, so that two windows don't write over each other. */
const PREFIX = 'wild-needle.practice-round.';

function storedRounds(): PracticeRound[] {
  try {
    const keys = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? '');
    const rows = keys.filter((key) => key.startsWith(PREFIX)).map((key) => localStorage.getItem(key) ?? '');
    return z
      .array(practiceRoundSchema.or(z.null()).catch(null))
      .parse(rows.map((row): unknown => JSON.parse(row)))
      .filter((round) => round !== null);
  } catch {
    return [];
  }
}

/** Where storage is full or forbidden, rounds wait as long as the page lives. */
function store(change: (storage: Storage) => void): void {
  try {
    change(localStorage);
  } catch {
    // The page works without.
  }
}

export const restoreUnsent = createEffect(
  (actions$ = inject(Actions)) =>
    actions$.pipe(
      ofType(practiceActions.opened),
      map(() => practiceApiActions.unsentRestored({ rounds: storedRounds() })),
    ),
  { functional: true },
);

export const loadRounds = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(practiceActions.opened),
      switchMap(({ songId }) =>
        api.practiceRounds(songId).pipe(
          map((rounds) => practiceApiActions.roundsLoaded({ songId, rounds })),
          catchError(() => of(practiceApiActions.requestFailed())),
        ),
      ),
    ),
  { functional: true },
);

/** One after the other; what could not be sent before goes along. */
export const keepRounds = createEffect(
  (actions$ = inject(Actions), api = inject(Api), state = inject(Store)) =>
    actions$.pipe(
      ofType(practiceApiActions.unsentRestored, practiceActions.roundPlayed),
      tap((action) => {
        if ('round' in action) {
          store((s) => s.setItem(PREFIX + action.round.id, JSON.stringify(action.round)));
        }
      }),
      withLatestFrom(state.select(practiceFeature.selectUnsent)),
      concatMap(([, unsent]) =>
        from(unsent).pipe(
          concatMap((round) =>
            api.keepPracticeRound(round).pipe(map(() => practiceApiActions.roundKept({ id: round.id }))),
          ),
          catchError(() => of(practiceApiActions.requestFailed())),
        ),
      ),
    ),
  { functional: true },
);

export const forgetKept = createEffect(
  (actions$ = inject(Actions)) =>
    actions$.pipe(
      ofType(practiceApiActions.roundKept),
      tap(({ id }) => store((s) => s.removeItem(PREFIX + id))),
    ),
  { functional: true, dispatch: false },
);
