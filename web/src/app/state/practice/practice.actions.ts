import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { PracticeRound } from '@wild-needle/contract';

export const practiceActions = createActionGroup({
  source: 'Practice',
  events: {
    Opened: props<{ songId: string }>(),
    'Round Played': props<{ round: PracticeRound }>(),
  },
});

export const practiceApiActions = createActionGroup({
  source: 'Practice API',
  events: {
    'Unsent Restored': props<{ rounds: PracticeRound[] }>(),
    'Rounds Loaded': props<{ songId: string; rounds: PracticeRound[] }>(),
    'Round Kept': props<{ id: string }>(),
    'Request Failed': emptyProps(),
  },
});
