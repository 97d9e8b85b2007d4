import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { catchError, concatMap, map, of, switchMap, type Observable } from 'rxjs';
import { Api, type ApiError } from '../../api/api';
import { shapesActions, shapesApiActions } from './shapes.actions';

const failed = ({ message }: ApiError) => of(shapesApiActions.requestFailed({ message }));

export const loadShapes = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(shapesActions.opened),
      switchMap(() =>
        api.listShapes().pipe(
          map((shapes) => shapesApiActions.shapesLoaded({ shapes })),
          catchError(failed),
        ),
      ),
    ),
  { functional: true },
);

/** Saved one after the other; what the server has afterwards is shown. */
export const saveShapes = createEffect(
  (actions$ = inject(Actions), api = inject(Api)) =>
    actions$.pipe(
      ofType(shapesActions.shapeKept, shapesActions.shapeForgotten),
      concatMap((action) => {
        const saved: Observable<unknown> =
          'shape' in action ? api.keepShape(action.shape) : api.forgetShape(action.id);
        return saved.pipe(
          map(() => shapesActions.opened()),
          catchError(failed),
        );
      }),
    ),
  { functional: true },
);
