import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import { errorSchema, guessSchema, type Guess } from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';

let server: TestServer;
const since = async (time: string): Promise<Guess[]> => {
  const query = new URLSearchParams({ since: time });
  return z.array(guessSchema).parse(await (await server.ask(`/api/guesses?${query.toString()}`)).json());
};
const keep = (id: string, body: unknown): Promise<Response> =>
  server.ask(`/api/guesses/${id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const GUESS = {
  at: '2026-02-03T10:00:00.000Z',
  songId: randomUUID(),
  place: 'section/0/strum',
  guessed: { rootPc: 8, kind: 'three-strings' },
  heard: { rootPc: 1, kind: 'fifth-below' },
};

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
});
afterAll(() => server.stop());

describe('guesses of the ear', () => {
  it('are kept in order of time, asked for from a day on, and counted once when they are sent twice', async () => {
    const [first, second] = [randomUUID(), randomUUID()];
    expect((await keep(second, { ...GUESS, at: '2026-02-05T10:00:00.000Z' })).status).toBe(204);
    expect((await keep(first, GUESS)).status).toBe(204);
    expect((await keep(first, GUESS)).status).toBe(204);
    expect((await since('2026-01-01T00:00:00.000Z')).map((g) => g.id)).toEqual([first, second]);
    expect((await since('2026-02-04T00:00:00.000Z')).map((g) => g.id)).toEqual([second]);
    expect((await since('2026-01-01T00:00:00.000Z'))[0]).toEqual({ id: first, ...GUESS });
  });

  it.each([
    ['no root', { ...GUESS, guessed: { rootPc: 12, kind: 'major' } }],
    ['no kind', { ...GUESS, heard: { rootPc: 1, kind: 'ninth' } }],
    ['no time', { ...GUESS, at: 'yesterday' }],
  ])('are refused with %s', async (_, body) => {
    const answer = await keep(randomUUID(), body);
    expect(answer.status).toBe(400);
    expect(errorSchema.parse(await answer.json()).code).toBe('invalid-request');
  });
});
