import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { ShelfSort, SongSummary } from '@wild-needle/contract';

export const shelfActions = createActionGroup({
  source: 'Shelf',
  events: {
    Opened: emptyProps(),
    Searched: props<{ search: string }>(),
    Sorted: props<{ sort: ShelfSort }>(),
    /** The end of what was listed is in sight. */
    'More Wanted': emptyProps(),
    'Song Removed': props<{ songId: string }>(),
    'Song Named': props<{ songId: string; title: string; artist: string; tags: readonly string[] }>(),
  },
});

export const songsApiActions = createActionGroup({
  source: 'Songs API',
  events: {
    /** From `offset` on. */
    'Songs Loaded': props<{ songs: SongSummary[]; offset: number }>(),
    'Loading Failed': props<{ message: string }>(),
    'Naming Failed': props<{ message: string }>(),
  },
});
