import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS, type AnalysisJob, type SongSummary } from '@wild-needle/contract';
import { importActions, importsApiActions } from './imports/imports.actions';
import { importsFeature } from './imports/imports.reducer';
import { jobEventActions } from './jobs/jobs.actions';
import { jobsFeature } from './jobs/jobs.reducer';
import { settingsActions } from './settings/settings.actions';
import { settingsFeature } from './settings/settings.reducer';
import { shapesActions, shapesApiActions } from './shapes/shapes.actions';
import { shapesFeature } from './shapes/shapes.reducer';
import { shelfActions, songsApiActions } from './songs/songs.actions';
import { songsFeature } from './songs/songs.reducer';

const JOB: AnalysisJob = {
  id: '3fa85f64-5717-4562-b3fc-2c963f66afa6',
  recordingId: '3fa85f64-5717-4562-b3fc-2c963f66afa7',
  songId: 'song',
  status: 'running',
  share: 0.5,
  doing: 'Listening',
  soFar: null,
  problem: null,
  kept: [],
};

describe('imports', () => {
  const { reducer } = importsFeature;
  const chosen = reducer(
    undefined,
    importActions.fileChosen({ importId: 'a', fileName: 'x.wav', songId: null }),
  );

  it('go from sending to reading and leave when done', () => {
    const sent = reducer(chosen, importsApiActions.bytesSent({ importId: 'a', share: 1 }));
    expect(sent.imports[0]).toMatchObject({ status: 'reading', share: 1 });
    const answer = { songId: 's', recordingId: 'r', alreadyKnown: false };
    expect(reducer(sent, importsApiActions.importDone({ importId: 'a', answer })).imports).toEqual([]);
    const known = reducer(
      sent,
      importsApiActions.importDone({ importId: 'a', answer: { ...answer, alreadyKnown: true } }),
    );
    expect(known.imports[0].status).toBe('known');
  });

  it('stay with their reason when they fail, until dismissed', () => {
    const failed = reducer(chosen, importsApiActions.importFailed({ importId: 'a', message: 'Not audio' }));
    expect(failed.imports[0]).toMatchObject({ status: 'failed', problem: 'Not audio', fileName: 'x.wav' });
    expect(reducer(failed, importActions.messageDismissed({ importId: 'a' })).imports).toEqual([]);
  });
});

describe('jobs and songs', () => {
  it('keep the newest state of each job', () => {
    const state = jobsFeature.reducer(undefined, jobEventActions.jobChanged({ job: JOB }));
    const done = jobsFeature.reducer(state, jobEventActions.jobChanged({ job: { ...JOB, status: 'done' } }));
    expect(done.bySong['song']?.status).toBe('done');
  });

  it('keep the shelf when it can not be read again', () => {
    const loaded = songsFeature.reducer(undefined, songsApiActions.songsLoaded({ songs: [], offset: 0 }));
    const failed = songsFeature.reducer(loaded, songsApiActions.loadingFailed({ message: 'away' }));
    expect(failed).toMatchObject({ songs: [], status: 'failed', problem: 'away' });
    expect(songsFeature.reducer(failed, shelfActions.songRemoved({ songId: 'x' })).songs).toEqual([]);
  });
});

describe('settings', () => {
  it('change one at a time', () => {
    const dark = settingsFeature.reducer(undefined, settingsActions.themeChosen({ theme: 'dark' }));
    expect(settingsFeature.reducer(dark, settingsActions.volumeChanged({ volume: 0.2 }))).toEqual({
      ...DEFAULT_SETTINGS,
      theme: 'dark',
      volume: 0.2,
    });
  });

  it('know how notes are named, and which guitar is played', () => {
    const flats = settingsFeature.reducer(undefined, settingsActions.spellingChosen({ spelling: 'flats' }));
    const strung = settingsFeature.reducer(
      flats,
      settingsActions.stringsChosen({ stringSet: '12–54', scaleMm: 628.7 }),
    );
    expect(strung).toMatchObject({ spelling: 'flats', stringSet: '12–54', scaleMm: 628.7 });
  });
});

describe('shapes', () => {
  const shape = { id: 'a', name: 'Low', notes: [{ strings: 0, frets: 0 }] };

  it('are there at once, renamed in place, and gone when forgotten', () => {
    const { reducer } = shapesFeature;
    const two = [shape, { ...shape, id: 'b' }].reduce(
      (state, one) => reducer(state, shapesActions.shapeKept({ shape: one })),
      reducer(undefined, shapesActions.opened()),
    );
    const renamed = reducer(two, shapesActions.shapeKept({ shape: { ...shape, name: 'High' } }));
    expect(renamed.shapes.map((s) => s.name)).toEqual(['High', 'Low']);
    expect(reducer(renamed, shapesActions.shapeForgotten({ id: 'a' })).shapes.map((s) => s.id)).toEqual([
      'b',
    ]);
  });

  it('stay when the server does not answer', () => {
    const kept = shapesFeature.reducer(undefined, shapesActions.shapeKept({ shape }));
    const failed = shapesFeature.reducer(kept, shapesApiActions.requestFailed({ message: 'away' }));
    expect(failed).toEqual({ shapes: [shape], problem: 'away' });
  });
});

describe('the shelf', () => {
  const song = (id: string): SongSummary => ({ id }) as SongSummary;

  it('adds a page to what is listed, or lists anew', () => {
    const first = songsFeature.reducer(
      undefined,
      songsApiActions.songsLoaded({ songs: [song('a')], offset: 0 }),
    );
    const more = songsFeature.reducer(first, songsApiActions.songsLoaded({ songs: [song('b')], offset: 1 }));
    expect(more.songs.map((s) => s.id)).toEqual(['a', 'b']);
    const anew = songsFeature.reducer(more, songsApiActions.songsLoaded({ songs: [song('c')], offset: 0 }));
    expect([anew.songs.map((s) => s.id), anew.hasMore]).toEqual([['c'], false]);
  });

  it('keeps what is searched and sorted, and says why a name was not kept until the next one', () => {
    const searched = songsFeature.reducer(undefined, shelfActions.searched({ search: 'drop c' }));
    const sorted = songsFeature.reducer(searched, shelfActions.sorted({ sort: 'due' }));
    expect(sorted).toMatchObject({ search: 'drop c', sort: 'due' });
    const failed = songsFeature.reducer(sorted, songsApiActions.namingFailed({ message: 'away' }));
    expect(failed.namingProblem).toBe('away');
    const again = shelfActions.songNamed({ songId: 'a', title: 'A', artist: '', tags: [] });
    expect(songsFeature.reducer(failed, again).namingProblem).toBeNull();
  });
});
