import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as z from 'zod';
import {
  errorSchema,
  importAnswerSchema,
  openSongSchema,
  versionDocumentSchema,
  versionSchema,
  type OpenSong,
  type Version,
} from '@wild-needle/contract';
import { startTestServer, type TestServer } from '../../test/database';
import { toneFile } from '../../test/audio';

let server: TestServer;
let id = '';
const open = async (): Promise<OpenSong> =>
  openSongSchema.parse(await (await server.ask(`/api/songs/${id}`)).json());
const list = async (query = ''): Promise<Version[]> =>
  z.array(versionSchema).parse(await (await server.ask(`/api/songs/${id}/versions${query}`)).json());
const save = async (title: string): Promise<void> => {
  const { document, revision } = await open();
  const answer = await server.ask(`/api/songs/${id}/document`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ baseRevision: revision, document: { ...document, title } }),
  });
  expect(answer.status).toBe(200);
};

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
  const answer = await server.ask('/api/recordings?fileName=song.wav', {
    method: 'POST',
    body: new Uint8Array(toneFile('wav', 2)),
  });
  id = importAnswerSchema.parse(await answer.json()).songId;
});
afterAll(() => server.stop());

describe('saved versions of a song', () => {
  it('are listed with what each changed, newest first, and read as they were', async () => {
    await save('One');
    await save('Two');
    const versions = await list();
    expect(versions.map((v) => v.revision)).toEqual([3, 2, 1]);
    expect(versions[0].changes).toEqual([{ kind: 'part', part: 'title' }]);
    expect(versions[2].changes).toEqual([]);
    expect((await list('?before=3')).map((v) => v.revision)).toEqual([2, 1]);
    const answer = await server.ask(`/api/songs/${id}/versions/2`);
    expect(versionDocumentSchema.parse(await answer.json()).document.title).toBe('One');
  });

  it.each([
    ['/api/songs/3fa85f64-5717-4562-b3fc-2c963f66afa6/versions', 404, 'not-found'],
    ['VERSIONS/99', 404, 'not-found'],
    ['VERSIONS/no', 400, 'invalid-request'],
    ['VERSIONS?before=x', 400, 'invalid-request'],
  ])('answer %s with %d', async (path, status, code) => {
    const answer = await server.ask(path.replace('VERSIONS', `/api/songs/${id}/versions`));
    expect(answer.status).toBe(status);
    expect(errorSchema.parse(await answer.json()).code).toBe(code);
  });

  it('are thinned with age: all of a day, then one an hour, after a week one a day, never the last', async () => {
    // Versions that are so many hours old, at the half hour: twelve days, of which each hour has two.
    const { sequelize } = server.services;
    await sequelize.query('DELETE FROM song_revisions WHERE revision < 3');
    await sequelize.query('UPDATE songs SET revision = 2000');
    await sequelize.query('UPDATE song_revisions SET revision = 2000');
    await sequelize.query(`
      INSERT INTO song_revisions (song_id, revision, document, saved_at)
      SELECT '${id}', 2000 - n, (SELECT document FROM song_revisions WHERE revision = 2000),
        date_trunc('day', now()) - interval '30 minutes' * n
      FROM generate_series(1, 576) AS n`);
    await save('Three');
    const [rows] = await sequelize.query(`
      SELECT extract(epoch FROM now() - saved_at) / 3600 AS hours FROM song_revisions ORDER BY revision DESC`);
    const hours = (rows as { hours: string }[]).map((row) => Number(row.hours));
    const within = (from: number, to: number): number => hours.filter((h) => h > from && h <= to).length;
    expect(within(-1, 24)).toBeGreaterThan(2);
    // One in each of the 24 hours of the day before, not two; at its ends an hour is cut.
    expect(within(30, 54)).toBeGreaterThanOrEqual(23);
    expect(within(30, 54)).toBeLessThanOrEqual(25);
    expect(within(8 * 24, 11 * 24)).toBeGreaterThanOrEqual(2);
    expect(within(8 * 24, 11 * 24)).toBeLessThanOrEqual(4);
    expect((await open()).document.title).toBe('Three');
  });
});
