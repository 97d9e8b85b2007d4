import { createActionGroup, emptyProps, props } from '@ngrx/store';
import type { AnalysisJob } from '@wild-needle/contract';

export const jobActions = createActionGroup({
  source: 'Jobs',
  events: {
    'Watching Started': emptyProps(),
    'Analysis Cancelled': props<{ jobId: string }>(),
    'Analysis Requested': props<{ recordingId: string }>(),
  },
});

export const jobEventActions = createActionGroup({
  source: 'Job Events',
  events: { 'Job Changed': props<{ job: AnalysisJob }>() },
});
