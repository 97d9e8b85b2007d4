import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import { errorSchema, practiceRoundSchema, type PracticeRound } from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';

let server: TestServer;
const SONG = randomUUID();
const roundsOf = async (songId: string): Promise<PracticeRound[]> =>
  z
    .array(practiceRoundSchema)
    .parse(await (await server.ask(`/api/practice-rounds?songId=${songId}`)).json());
const keep = (id: string, body: unknown): Promise<Response> =>
  server.ask(`/api/practice-rounds/${id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const ROUND = {
  at: '2026-02-03T10:00:00.000Z',
  songId: SONG,
  item: 'riff:b',
  way: 'whole',
  isWhole: true,
  percent: 80,
  answer: 'clean',
  seconds: 4.5,
  heard: { written: 12, played: 11, right: 11, meanMs: 14.2, spreadMs: 9 },
};

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
});
afterAll(() => server.stop());

describe('rounds that were practised', () => {
  it('are kept in order of time, each once, also when they are sent twice, and are of their song', async () => {
    const [first, second, other] = [randomUUID(), randomUUID(), randomUUID()];
    expect((await keep(second, { ...ROUND, at: '2026-02-05T10:00:00.000Z', heard: null })).status).toBe(204);
    expect((await keep(first, ROUND)).status).toBe(204);
    expect((await keep(first, { ...ROUND, answer: 'slip' })).status).toBe(204);
    expect((await keep(other, { ...ROUND, songId: randomUUID() })).status).toBe(204);
    const rounds = await roundsOf(SONG);
    expect(rounds.map((r) => r.id)).toEqual([first, second]);
    expect(rounds[0]).toEqual({ id: first, ...ROUND });
  });

  it.each([
    ['a way that nobody knows', { ...ROUND, way: 'asleep' }],
    ['a speed out of reach', { ...ROUND, percent: 400 }],
    ['no item', { ...ROUND, item: '' }],
    ['no time', { ...ROUND, at: 'yesterday' }],
  ])('are refused with %s', async (_, body) => {
    const answer = await keep(randomUUID(), body);
    expect(answer.status).toBe(400);
    expect(errorSchema.parse(await answer.json()).code).toBe('invalid-request');
  });
});
