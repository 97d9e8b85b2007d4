import { ALGORITHM_VERSION } from '@wild-needle/core/analysis';
import { PLAIN_RIFF } from '@wild-needle/core/riff';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  importAnswerSchema,
  openSongSchema,
  ROUTES,
  type AnalysisJob,
  type OpenSong,
  type SongSummary,
} from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';
import { toneFile } from '../../test/audio';

async function importTone(
  server: TestServer,
  freqHz: number,
): Promise<{ songId: string; recordingId: string }> {
  const answer = await server.ask(`/api/recordings?fileName=tone${freqHz}.wav`, {
    method: 'POST',
    body: new Uint8Array(toneFile('wav', 6, freqHz)),
  });
  return importAnswerSchema.parse(await answer.json());
}

describe('analyses that run', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer({ jobs: 1 });
  });
  afterAll(() => server.stop());

  it('tell their progress, end with a result and a draft', async () => {
    const stream = await server.ask(`/api/analyses/events`);
    const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
    const { songId, recordingId } = await importTone(server, 110);
    const shelved = async (): Promise<SongSummary> => {
      const answer = await server.ask(ROUTES.listSongs.path);
      return ROUTES.listSongs.answer.parse(await answer.json()).find(({ id }) => id === songId)!;
    };
    const { updatedAt } = await shelved();
    let told = '';
    while (!told.includes('"status":"done"')) told += (await reader.read()).value ?? '';
    await reader.cancel();
    expect(told).toContain('event: job');
    expect(told).toContain('"status":"running"');

    const result = (await (await server.ask(`/api/recordings/${recordingId}/analysis`)).json()) as {
      schema: string;
      algorithm: string;
    };
    expect(result).toMatchObject({ schema: 'wild-needle/analysis@1', algorithm: ALGORITHM_VERSION });
    const song = openSongSchema.parse(await (await server.ask(`/api/songs/${songId}`)).json());
    expect(song.revision).toBe(2);
    expect(song.job).toMatchObject({ status: 'done', soFar: null });
    // Nobody has worked on it yet.
    expect(await shelved()).toMatchObject({ revision: 2, updatedAt });
  });

  it('leave what was set by hand while they ran, and say what', async () => {
    const { songId } = await importTone(server, 147);
    const open = async (): Promise<OpenSong> =>
      openSongSchema.parse(await (await server.ask(`/api/songs/${songId}`)).json());
    const { revision, document } = await open();
    const tuning = { name: 'custom', stringsMidi: [36, 43, 48, 53, 57, 62], capo: 0 };
    const loops = [{ id: 'mine', name: 'Mine', startS: 1, endS: 2 }];
    const saved = await server.ask(`/api/songs/${songId}/document`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ baseRevision: revision, document: { ...document, tuning, loops } }),
    });
    expect(saved.status).toBe(200);
    await expect.poll(async () => (await open()).job?.status, { timeout: 90_000 }).toBe('done');
    const after = await open();
    expect(after.revision).toBe(revision + 2);
    expect(after.document).toMatchObject({ tuning, loops });
    expect(after.document.referenceOffsetCents).not.toBe(0);
    expect(after.job?.kept).toEqual(['tuning', 'loops']);
  });

  it('leave a document alone that has riffs', async () => {
    const { songId, recordingId } = await importTone(server, 130);
    const open = async (): Promise<OpenSong> =>
      openSongSchema.parse(await (await server.ask(`/api/songs/${songId}`)).json());
    const finished = async (): Promise<OpenSong> => {
      await expect.poll(async () => (await open()).job?.status, { timeout: 90_000 }).toBe('done');
      return open();
    };
    const { revision, document } = await finished();
    const riff = {
      ...PLAIN_RIFF,
      id: 'mine',
      letter: 'Z',
      name: 'Mine',
      bars: [{ beats: 4, unit: 4 }],
      strums: [],
    };
    await server.ask(`/api/songs/${songId}/document`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        baseRevision: revision,
        document: { ...document, riffs: [riff], sections: [] },
      }),
    });
    await server.ask(`/api/recordings/${recordingId}/analyses`, { method: 'POST' });
    const after = await finished();
    expect(after.revision).toBe(revision + 1);
    expect(after.document.riffs.map((r) => r.id)).toEqual(['mine']);
  });
});

describe('an analysis that is told the tuning', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await startTestServer({ jobs: 1 });
  });
  afterAll(() => server.stop());

  it('uses it instead of a guess, and refuses one that is none', async () => {
    const { recordingId } = await importTone(server, 98);
    const start = (body: unknown): Promise<Response> =>
      server.ask(`/api/recordings/${recordingId}/analyses`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      });
    expect((await start({ tuning: { name: 'custom', stringsMidi: [], capo: 0 } })).status).toBe(400);
    const tuning = { name: 'custom', stringsMidi: [43, 43, 50, 55, 59, 62], capo: 0 };
    const { id } = (await (await start({ tuning })).json()) as AnalysisJob;
    await expect
      .poll(async () => (await server.services.analyses.get(id))?.status, { timeout: 90_000 })
      .toBe('done');
    expect((await server.services.analyses.newestResult(recordingId))?.tuning).toMatchObject(tuning);
  });
});

describe('analyses that wait', () => {
  let server: TestServer;
  const job = async (recordingId: string): Promise<AnalysisJob> => {
    const answer = await server.ask(`/api/recordings/${recordingId}/analyses`, { method: 'POST' });
    return (await answer.json()) as AnalysisJob;
  };
  beforeAll(async () => {
    server = await startTestServer({ jobs: 0 });
  });
  afterAll(() => server.stop());

  it('are queued once, cancelled once, and can be asked for again', async () => {
    const { recordingId } = await importTone(server, 220);
    const first = await job(recordingId);
    expect((await job(recordingId)).id).toBe(first.id);
    const cancelled = await server.ask(`/api/analyses/${first.id}/cancel`, { method: 'POST' });
    expect(await cancelled.json()).toMatchObject({ status: 'cancelled' });
    expect(await server.services.analyses.claim(first.id)).toBeNull();
    expect((await job(recordingId)).id).not.toBe(first.id);
  });

  it('go back into the queue when their worker has died', async () => {
    const { analyses, sequelize } = server.services;
    const { recordingId } = await importTone(server, 330);
    const { id } = await job(recordingId);
    expect(await analyses.claim(id)).toEqual({ recordingId, given: {} });
    expect(await analyses.requeueStale()).toBe(0);
    await sequelize.query(
      `UPDATE analyses SET heartbeat_at = now() - interval '1 minute' WHERE id = '${id}'`,
    );
    expect(await analyses.requeueStale()).toBe(1);
    expect(await analyses.get(id)).toMatchObject({ status: 'queued' });
    // The dead worker, should it come back, finds that nobody waits for it.
    expect(await analyses.beat(id, { share: 0.5, doing: 'late', soFar: null })).toBe(false);
  });
});
