import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import { errorSchema, shapeSchema, type Shape } from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';

let server: TestServer;
const list = async (): Promise<Shape[]> =>
  z.array(shapeSchema).parse(await (await server.ask(`/api/shapes`)).json());
const send = (method: string, id: string, body?: unknown): Promise<Response> =>
  server.ask(`/api/shapes/${id}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
const FIFTH = {
  name: 'Two up',
  notes: [
    { strings: 0, frets: 0 },
    { strings: 1, frets: 2 },
  ],
};

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
});
afterAll(() => server.stop());

describe('shapes', () => {
  it('are kept, renamed and forgotten, in the order they came', async () => {
    const [first, second] = [randomUUID(), randomUUID()];
    expect((await send('PUT', first, FIFTH)).status).toBe(200);
    await send('PUT', second, { ...FIFTH, name: 'Another' });
    await send('PUT', first, { ...FIFTH, name: 'Renamed' });
    expect((await list()).map((s) => s.name)).toEqual(['Renamed', 'Another']);
    expect((await send('DELETE', first)).status).toBe(204);
    expect((await list()).map((s) => s.id)).toEqual([second]);
    expect((await send('DELETE', first)).status).toBe(404);
  });

  it.each([
    ['without a name', { ...FIFTH, name: ' ' }],
    ['without notes', { ...FIFTH, notes: [] }],
    ['with a string used twice', { ...FIFTH, notes: [...FIFTH.notes, ...FIFTH.notes] }],
    ['off any neck', { ...FIFTH, notes: [{ strings: 0, frets: 99 }] }],
  ])('are refused %s', async (_, body) => {
    const answer = await send('PUT', randomUUID(), body);
    expect(answer.status).toBe(400);
    expect(errorSchema.parse(await answer.json()).code).toBe('invalid-request');
  });
});
