import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, concat, filter, map, mergeMap, of, switchMap, timer } from 'rxjs';
import { Api, type ApiError } from '../../api/api';
import { importsApiActions } from '../imports/imports.actions';
import { jobEventActions } from '../jobs/jobs.actions';
import { shelfActions, songsApiActions } from './songs.actions';

/** While the server or its database is away. */
const ASK_AGAIN_MS = 3000;

/** The shelf is read when it is shown and whenever something on it has changed. */
export const loadSongs = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(shelfActions.opened, importsApiActions.importDone, jobEventActions.jobChanged),
      filter((action) => !('job' in action) || !['queued', 'running'].includes(action.job.status)),
      switchMap(() =>
        api.listSongs().pipe(
          map((songs) => songsApiActions.songsLoaded({ songs })),
          // It says why, and asks again until there is an answer.
          catchError((error: ApiError, again) =>
            concat(
              of(songsApiActions.loadingFailed({ message: error.message })),
              timer(ASK_AGAIN_MS).pipe(switchMap(() => again)),
            ),
          ),
        ),
      ),
    ),
  { functional: true },
);

export const removeSong = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(shelfActions.songRemoved),
      mergeMap(({ songId }) =>
        api.deleteSong(songId).pipe(
          map(() => shelfActions.opened()),
          catchError(() => of(shelfActions.opened())),
        ),
      ),
    ),
  { functional: true },
);
