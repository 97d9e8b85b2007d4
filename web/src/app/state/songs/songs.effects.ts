import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import {
  catchError,
  concat,
  concatMap,
  debounce,
  filter,
  map,
  mergeMap,
  of,
  switchMap,
  timer,
  withLatestFrom,
} from 'rxjs';
import { setTitle } from '@wild-needle/core/riff';
import { Api, type ApiError } from '../../api/api';
import { importsApiActions } from '../imports/imports.actions';
import { jobEventActions } from '../jobs/jobs.actions';
import { shelfActions, songsApiActions } from './songs.actions';
import { songsFeature } from './songs.reducer';

/** While the server or its database is away. */
const ASK_AGAIN_MS = 3000;
/** Letters that are typed in a row are searched for together. */
const TYPED_MS = 120;

/** The shelf is read when it is shown, searched or sorted, and whenever something on it has changed. */
export const loadSongs = createEffect(
  (actions$ = inject(Actions), api = inject(Api), store = inject(Store)) =>
    actions$.pipe(
      ofType(
        shelfActions.opened,
        shelfActions.searched,
        shelfActions.sorted,
        shelfActions.moreWanted,
        importsApiActions.importDone,
        jobEventActions.jobChanged,
      ),
      filter((action) => !('job' in action) || !['queued', 'running'].includes(action.job.status)),
      debounce((action) => (action.type === shelfActions.searched.type ? timer(TYPED_MS) : of(0))),
      withLatestFrom(store.select(songsFeature.selectSongsState)),
      switchMap(([action, { search, sort, songs }]) => {
        const offset = action.type === shelfActions.moreWanted.type ? songs.length : 0;
        return api.listSongs({ search, sort, offset }).pipe(
          map((found) => songsApiActions.songsLoaded({ songs: found, offset })),
          // It says why, and asks again until there is an answer.
          catchError((error: ApiError, again) =>
            concat(
              of(songsApiActions.loadingFailed({ message: error.message })),
              timer(ASK_AGAIN_MS).pipe(switchMap(() => again)),
            ),
          ),
        );
      }),
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

/** Title and artist are part of the document: it is saved on its newest revision, tags after it. */
export const nameSong = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(shelfActions.songNamed),
      concatMap(({ songId, title, artist, tags }) =>
        api.openSong(songId).pipe(
          switchMap(({ revision, document }) => {
            const named = setTitle(document, title, artist);
            const isSame = named.title === document.title && named.artist === document.artist;
            return isSame ? of(null) : api.saveSong(songId, { baseRevision: revision, document: named });
          }),
          switchMap(() => api.setTags(songId, tags)),
          map(() => shelfActions.opened()),
          catchError((error: ApiError) => of(songsApiActions.namingFailed({ message: error.message }))),
        ),
      ),
    ),
  { functional: true },
);
