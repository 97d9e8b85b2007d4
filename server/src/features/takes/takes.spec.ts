import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import {
  errorSchema,
  importAnswerSchema,
  MAX_DURATION_S,
  songSummarySchema,
  takeSchema,
  type Take,
} from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';

const RATE = 8000;
let server: TestServer;
const put = (path: string, body: string | Uint8Array<ArrayBuffer>, type: string): Promise<Response> =>
  server.ask(path, { method: 'PUT', headers: { 'content-type': type }, body });
const begin = (id: string, sampleRate = RATE): Promise<Response> =>
  put(`/api/takes/${id}`, JSON.stringify({ sampleRate }), 'application/json');
const add = (id: string, seq: number, bytes: Uint8Array<ArrayBuffer>): Promise<Response> =>
  put(`/api/takes/${id}/pieces/${seq}`, bytes, 'application/octet-stream');
const takes = async (): Promise<Take[]> =>
  z.array(takeSchema).parse(await (await server.ask('/api/takes')).json());

/** Half a second of a tone that goes on from piece to piece. */
function piece(seq: number): Uint8Array<ArrayBuffer> {
  const samples = Int16Array.from({ length: RATE / 2 }, (_, n) =>
    Math.round(8000 * Math.sin((2 * Math.PI * 110 * (seq * (RATE / 2) + n)) / RATE)),
  );
  return new Uint8Array(samples.buffer);
}

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
});
afterAll(() => server.stop());

describe('a take', () => {
  it('is there piece by piece, each once, and becomes a song with all of them', async () => {
    const id = randomUUID();
    expect((await begin(id)).status).toBe(204);
    expect((await begin(id)).status).toBe(204);
    expect(await takes()).toEqual([]);
    for (const seq of [0, 1, 1, 2, 3]) expect((await add(id, seq, piece(seq))).status).toBe(204);
    expect(await takes()).toMatchObject([{ id, seconds: 2, isRecording: true }]);

    const kept = await server.ask(`/api/takes/${id}/keep`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ title: 'Take of mine' }),
    });
    expect(kept.status).toBe(201);
    const { songId } = importAnswerSchema.parse(await kept.json());
    const songs = z.array(songSummarySchema).parse(await (await server.ask('/api/songs')).json());
    const song = songs.find((s) => s.id === songId);
    expect([song?.title, song?.durationS]).toEqual(['Take of mine', 2]);
    expect(await takes()).toEqual([]);
  });

  it('can be thrown away, once', async () => {
    const id = randomUUID();
    await begin(id);
    await add(id, 0, piece(0));
    expect((await server.ask(`/api/takes/${id}`, { method: 'DELETE' })).status).toBe(204);
    expect((await server.ask(`/api/takes/${id}`, { method: 'DELETE' })).status).toBe(404);
    expect((await add(id, 1, piece(1))).status).toBe(404);
    expect(await takes()).toEqual([]);
  });

  it('that has lasted as long as a recording may is full, and what is there stays', async () => {
    const id = randomUUID();
    await begin(id);
    await add(id, 0, piece(0));
    const answer = await add(id, 2 * MAX_DURATION_S + 1, piece(0));
    expect(answer.status).toBe(413);
    expect(errorSchema.parse(await answer.json())).toMatchObject({
      code: 'too-long',
      message: 'A take lasts up to 30 minutes.',
    });
    expect(await takes()).toMatchObject([{ seconds: 0.5 }]);
  });

  it.each([
    ['half a sample', new Uint8Array(3)],
    ['nothing', new Uint8Array(0)],
  ])('takes no piece of %s', async (_, bytes) => {
    const id = randomUUID();
    await begin(id);
    expect((await add(id, 0, bytes)).status).toBe(400);
  });

  it('without a piece is no song, and no rate is taken that no device has', async () => {
    const id = randomUUID();
    await begin(id);
    const kept = await server.ask(`/api/takes/${id}/keep`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ title: 'Nothing' }),
    });
    expect(kept.status).toBe(404);
    expect((await begin(randomUUID(), 12)).status).toBe(400);
  });
});
