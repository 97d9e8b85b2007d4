import { afterAll, beforeAll, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
});
afterAll(() => server.stop());

const kept = async (): Promise<unknown> => (await server.ask('/api/settings')).json();
const keep = (body: unknown): Promise<Response> =>
  server.ask('/api/settings', {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });

it('settings are none at first, then the last that were kept, each value within its range', async () => {
  expect(await kept()).toBeNull();
  expect((await keep({ ...DEFAULT_SETTINGS, theme: 'dark' })).status).toBe(204);
  await keep({ ...DEFAULT_SETTINGS, volume: 0.3, scaleMm: 9, pedals: { loop: 'x'.repeat(500) } });
  expect(await kept()).toEqual({ ...DEFAULT_SETTINGS, volume: 0.3 });
  expect((await keep([1])).status).toBe(400);
});
