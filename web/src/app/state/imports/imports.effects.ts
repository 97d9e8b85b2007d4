import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, concatMap, EMPTY, filter, map, of, takeUntil } from 'rxjs';
import { MAX_UPLOAD_BYTES } from '@wild-needle/contract';
import { Api, type ApiError } from '../../api/api';
import { importActions, importsApiActions } from './imports.actions';
import { ImportFiles } from './import-files';

const TOO_LARGE = 'This file is larger than 500 MB. Export it as FLAC or MP3, or cut out the song.';

/** One file after the other; cancelling one goes on with the next. */
export const sendFiles = createEffect(
  (actions$ = inject(Actions), api = inject(Api), files = inject(ImportFiles)) =>
    actions$.pipe(
      ofType(importActions.fileChosen),
      concatMap(({ importId, songId }) => {
        const file = files.take(importId);
        if (!file) return EMPTY;
        if (file.size > MAX_UPLOAD_BYTES)
          return of(importsApiActions.importFailed({ importId, message: TOO_LARGE }));
        return api.importRecording(file, songId).pipe(
          map((event) =>
            event.kind === 'sent'
              ? importsApiActions.bytesSent({ importId, share: event.share })
              : importsApiActions.importDone({ importId, answer: event.answer }),
          ),
          catchError((error: ApiError) =>
            of(importsApiActions.importFailed({ importId, message: error.message })),
          ),
          takeUntil(
            actions$.pipe(
              ofType(importActions.importCancelled),
              filter((cancelled) => cancelled.importId === importId),
            ),
          ),
        );
      }),
    ),
  { functional: true },
);
