/** Analyses on their way, by song. */
import { createFeature, createReducer, on } from '@ngrx/store';
import type { AnalysisJob } from '@wild-needle/contract';
import { songsApiActions } from '../songs/songs.actions';
import { jobEventActions } from './jobs.actions';

export interface JobsState {
  readonly bySong: Readonly<Record<string, AnalysisJob | undefined>>;
}

const initialState: JobsState = { bySong: {} };

export const jobsFeature = createFeature({
  name: 'jobs',
  reducer: createReducer(
    initialState,
    on(jobEventActions.jobChanged, (state, { job }): JobsState => ({
      bySong: { ...state.bySong, [job.songId]: job },
    })),
    // The shelf knows the newest job of every song; events may have been missed.
    on(songsApiActions.songsLoaded, (_state, { songs }): JobsState => ({
      bySong: Object.fromEntries(songs.flatMap((s) => (s.job ? [[s.id, s.job]] : []))),
    })),
  ),
});
