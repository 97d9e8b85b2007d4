import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, EMPTY, map, mergeMap, switchMap } from 'rxjs';
import { Api } from '../../api/api';
import { jobActions, jobEventActions } from './jobs.actions';

export const watchJobs = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(jobActions.watchingStarted),
      switchMap(() => api.analysisEvents()),
      map((job) => jobEventActions.jobChanged({ job })),
    ),
  { functional: true },
);

export const cancelAnalysis = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(jobActions.analysisCancelled),
      mergeMap(({ jobId }) => api.cancelAnalysis(jobId).pipe(catchError(() => EMPTY))),
      map((job) => jobEventActions.jobChanged({ job })),
    ),
  { functional: true },
);

export const requestAnalysis = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(jobActions.analysisRequested),
      mergeMap(({ recordingId }) => api.startAnalysis(recordingId).pipe(catchError(() => EMPTY))),
      map((job) => jobEventActions.jobChanged({ job })),
    ),
  { functional: true },
);
