import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { Shape } from '@wild-needle/contract';

export const shapesActions = createActionGroup({
  source: 'Riffs',
  events: {
    Opened: emptyProps(),
    'Shape Kept': props<{ shape: Shape }>(),
    'Shape Forgotten': props<{ id: string }>(),
  },
});

export const shapesApiActions = createActionGroup({
  source: 'Shapes API',
  events: {
    'Shapes Loaded': props<{ shapes: Shape[] }>(),
    'Request Failed': props<{ message: string }>(),
  },
});
