import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { SongSummary } from '@wild-needle/contract';

export const shelfActions = createActionGroup({
  source: 'Shelf',
  events: {
    Opened: emptyProps(),
    'Song Removed': props<{ songId: string }>(),
  },
});

export const songsApiActions = createActionGroup({
  source: 'Songs API',
  events: {
    'Songs Loaded': props<{ songs: SongSummary[] }>(),
    'Loading Failed': props<{ message: string }>(),
  },
});
