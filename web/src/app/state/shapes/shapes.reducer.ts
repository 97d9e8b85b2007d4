/** The player's own shapes, kept across songs. */
import { createFeature, createReducer, on } from '@ngrx/store';
import type { Shape } from '@wild-needle/contract';
import { shapesActions, shapesApiActions } from './shapes.actions';

export interface ShapesState {
  /** Oldest first. */
  readonly shapes: readonly Shape[];
  /** Why the last request failed, in words; null when it did not. */
  readonly problem: string | null;
}

const initialState: ShapesState = { shapes: [], problem: null };

export const shapesFeature = createFeature({
  name: 'shapes',
  reducer: createReducer(
    initialState,
    on(shapesApiActions.shapesLoaded, (_state, { shapes }): ShapesState => ({ shapes, problem: null })),
    on(shapesApiActions.requestFailed, (state, { message }): ShapesState => ({ ...state, problem: message })),
    // There at once; should the server refuse, the reload says so.
    on(shapesActions.shapeKept, (state, { shape }): ShapesState => ({
      ...state,
      shapes: state.shapes.some((s) => s.id === shape.id)
        ? state.shapes.map((s) => (s.id === shape.id ? shape : s))
        : [...state.shapes, shape],
    })),
    on(shapesActions.shapeForgotten, (state, { id }): ShapesState => ({
      ...state,
      shapes: state.shapes.filter((s) => s.id !== id),
    })),
  ),
});
