import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import fc from 'fast-check';
import * as z from 'zod';
import {
  errorSchema,
  importAnswerSchema,
  openSongSchema,
  ROUTES,
  type OpenSong,
} from '@wild-needle/contract';
import { FORMATS } from '@wild-needle/core/formats';
import { MAX_FRET } from '@wild-needle/core/guitar';
import { PLAIN_RIFF, PLAIN_STRUM, type Riff } from '@wild-needle/core/riff';
import { startTestServer, type TestServer } from '../../test/database';
import { toneFile } from '../../test/audio';

let server: TestServer;
let song: OpenSong;
const open = async (id: string): Promise<OpenSong> =>
  openSongSchema.parse(await (await server.ask(`/api/songs/${id}`)).json());
const save = (id: string, body: unknown): Promise<Response> =>
  server.ask(`/api/songs/${id}/document`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  });

beforeAll(async () => {
  server = await startTestServer({ jobs: 0 });
  const query = new URLSearchParams({ fileName: 'song.wav', artist: 'Tin Parliament' });
  const answer = await server.ask(`/api/recordings?${query.toString()}`, {
    method: 'POST',
    body: new Uint8Array(toneFile('wav', 2)),
  });
  const { songId } = importAnswerSchema.parse(await answer.json());
  song = await open(songId);
});
afterAll(() => server.stop());

describe('songs', () => {
  it('begin with an empty document at revision 1', () => {
    expect(song).toMatchObject({
      revision: 1,
      document: { title: 'Song', artist: 'Tin Parliament', riffs: [] },
    });
    expect(song.job?.status).toBe('queued');
  });

  it('save a change on the newest revision and refuse one on an older, also at the same moment', async () => {
    const body = (title: string): object => ({ baseRevision: 1, document: { ...song.document, title } });
    const answers = await Promise.all([save(song.id, body('One')), save(song.id, body('Two'))]);
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    const late = await save(song.id, body('Three'));
    expect(errorSchema.parse(await late.json()).code).toBe('conflict');
    const now = await open(song.id);
    expect(now.revision).toBe(2);
    expect(['One', 'Two']).toContain(now.document.title);
  });

  it.each([
    ['no JSON', '{"baseRevision": 1,', /can't be read/],
    ['no document', { baseRevision: 1 }, /document/],
  ])('refuse %s and say where', async (_, body, message) => {
    const answer = await save(song.id, body);
    expect(answer.status).toBe(400);
    const error = errorSchema.parse(await answer.json());
    expect(error.code).toBe('invalid-request');
    expect(error.message).toMatch(message);
  });

  it('refuse a fret beyond the neck in a document that is right otherwise', async () => {
    const riff = (fret: number): Riff => ({
      ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: '', bars: [{ beats: 4, unit: 4 }] },
      strums: [
        {
          ...PLAIN_STRUM,
          id: 's',
          startTicks: 0,
          durationTicks: 960,
          frets: [{ string: 6, fret }],
          trust: 'heard',
        },
      ],
    });
    const saved = (fret: number): Promise<Response> =>
      save(song.id, { baseRevision: 2, document: { ...song.document, riffs: [riff(fret)] } });
    const refused = await saved(MAX_FRET + 1);
    expect(refused.status).toBe(400);
    expect(errorSchema.parse(await refused.json()).message).toContain(
      'document.riffs.0.strums.0.frets.0.fret',
    );
    expect((await saved(MAX_FRET)).status).toBe(200);
  });

  it.each(FORMATS)('are taken away as $id', async ({ id, mime, write }) => {
    const answer = await server.ask(`/api/songs/${song.id}/export/${id}`);
    expect(answer.headers.get('content-type')).toContain(mime);
    const written = await write((await open(song.id)).document);
    const bytes = typeof written === 'string' ? new TextEncoder().encode(written) : written;
    expect(new Uint8Array(await answer.arrayBuffer())).toEqual(bytes);
  });

  it('answer 404 for what is not there and 400 for what is no id', async () => {
    expect((await server.ask(`/api/songs/3fa85f64-5717-4562-b3fc-2c963f66afa6`)).status).toBe(404);
    expect((await server.ask(`/api/songs/1;drop`)).status).toBe(400);
    expect((await server.ask(`/api/nothing`)).status).toBe(404);
    expect((await server.ask(`/api/songs/${song.id}/export/nothing`)).status).toBe(400);
  });

  it('stores every body that its schema accepts, and gives it back as it was', async () => {
    const text = fc.string({ unit: 'binary', maxLength: 12 });
    const document = fc.record({
      title: text,
      artist: text,
      tuning: fc.record({
        name: text,
        stringsMidi: fc.array(fc.integer({ min: 0, max: 127 }), { minLength: 1, maxLength: 12 }),
        capo: fc.integer({ min: 0, max: 12 }),
      }),
      referenceOffsetCents: fc.double({ min: -100, max: 100, noNaN: true }),
      loops: fc.array(
        fc.record({
          id: text,
          name: text,
          startS: fc.double({ min: 0, max: 1e300, noNaN: true }),
          endS: fc.double(),
        }),
        { maxLength: 3 },
      ),
      grid: fc.record({
        beatsS: fc.array(fc.double({ min: -10, max: 3600, noNaN: true }), { maxLength: 5 }),
        bars: fc.constant([]),
      }),
      riffs: fc.array(
        fc.record({
          id: text,
          letter: fc.string({ unit: 'binary', maxLength: 4 }),
          name: text,
          bars: fc.constant([{ beats: 4, unit: 4 }]),
          strums: fc.constant([]),
          barNotes: fc.array(fc.record({ bar: fc.nat(9), text, todo: fc.boolean() }), { maxLength: 2 }),
        }),
        { maxLength: 2 },
      ),
    });
    let accepted = 0;
    await fc.assert(
      fc.asyncProperty(document, async (changes) => {
        const { revision, document: before } = await open(song.id);
        const body = JSON.stringify({
          baseRevision: revision,
          document: { ...before, sections: [], ...changes },
        });
        const parsed = ROUTES.saveSong.body.safeParse(JSON.parse(body));
        const answer = await save(song.id, body);
        expect(answer.status).toBe(parsed.success ? 200 : 400);
        if (!parsed.success) return;
        accepted++;
        expect((await open(song.id)).document).toEqual(parsed.data.document);
      }),
      { numRuns: 150, seed: 18 },
    );
    expect(accepted).toBeGreaterThan(10);
  });

  it('stand on the shelf until they are removed, with all that belongs to them', async () => {
    const list = async (): Promise<unknown[]> => (await (await server.ask(`/api/songs`)).json()) as unknown[];
    expect(await list()).toHaveLength(1);
    expect((await server.ask(`/api/songs/${song.id}`, { method: 'DELETE' })).status).toBe(204);
    expect(await list()).toEqual([]);
    // It waits in "Removed" with its sound.
    expect((await server.ask(`/api/recordings/${song.recording?.id ?? ''}/audio`)).status).toBe(200);
    expect((await server.ask(`/api/removed-songs/${song.id}`, { method: 'DELETE' })).status).toBe(204);
    expect((await server.ask(`/api/recordings/${song.recording?.id ?? ''}/audio`)).status).toBe(404);
  });
});

it('writes no title and no note into its log', async () => {
  const lines: string[] = [];
  const logging = await startTestServer({ jobs: 0, log: (line) => lines.push(line) });
  try {
    const query = new URLSearchParams({ fileName: 'Secret name.wav', title: 'Secret title' });
    const bytes = new Uint8Array(toneFile('wav', 1));
    const post = { method: 'POST', body: bytes };
    const imported = await logging.ask(`/api/recordings?${query.toString()}`, post);
    const { songId } = importAnswerSchema.parse(await imported.json());
    // A fault of the database in the middle of a save.
    await logging.services.sequelize.query('ALTER TABLE song_revisions ADD CHECK (revision < 2)');
    const answer = await logging.ask(`/api/songs/${songId}/document`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ baseRevision: 1, document: { ...song.document, title: 'Secret save' } }),
    });
    expect(answer.status).toBe(500);
  } finally {
    await logging.stop();
  }
  const log = lines.join('');
  expect(log).toContain('request failed');
  expect(log).toContain('SequelizeDatabaseError');
  expect(log).not.toMatch(/secret/i);
});

describe('borders', () => {
  const ask = (headers: Record<string, string>): Promise<Response> => server.ask(`/api/songs`, { headers });

  it('answers its own page and refuses others', async () => {
    expect((await ask({ Origin: server.url })).status).toBe(200);
    expect((await ask({ Origin: 'http://127.0.0.1:1' })).status).toBe(403);
    expect((await ask({ Origin: 'https://example.org' })).status).toBe(403);
    expect((await ask({ 'Sec-Fetch-Site': 'cross-site' })).status).toBe(403);
  });

  it('refuses others whatever the address, and however it is spelled', async () => {
    const paths = ['/API/songs', '/api/Songs', '/api//songs', '/', '/songs', '/index.html', '/%61pi/songs'];
    for (const path of [...paths, ...Object.values(ROUTES).map((route) => route.path)]) {
      for (const site of ['cross-site', 'same-site', 'anything']) {
        const answer = await server.ask(path, { headers: { 'Sec-Fetch-Site': site } });
        expect([path, site, answer.status]).toEqual([path, site, 403]);
      }
    }
  });

  it.each(['%', '%E0%A4%A', '%zz', 'x%'])(
    'answers 400 to the broken address %s, on every route',
    async (broken) => {
      for (const path of ['/', ...Object.values(ROUTES).map((r) => `${r.path}/`), '/api/songs/', '/songs/']) {
        expect([path, (await server.ask(`${path}${broken}`)).status]).toEqual([path, 400]);
      }
    },
  );

  it('refuses host names that are not this computer', async () => {
    const { request } = await import('node:http');
    const status = (host: string): Promise<number | undefined> =>
      new Promise((resolve) => {
        request(`${server.url}/api/songs`, { headers: { host } }, (r) => resolve(r.statusCode)).end();
      });
    expect(await status('rebound.example:80')).toBe(403);
    expect(await status('localhost')).toBe(200);
  });

  it('sends a content security policy without inline scripts', async () => {
    const policy = (await ask({})).headers.get('content-security-policy') ?? '';
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval'");
    expect(policy).toContain("default-src 'none'");
  });

  it('answers for its health', async () => {
    const health = await (await server.ask(`/api/health`)).json();
    expect(health).toMatchObject({ status: 'ok', database: true, queue: true });
  });

  it('describes every route that it serves, and serves every route that it describes', async () => {
    const api = z
      .object({ openapi: z.literal('3.1.1'), paths: z.record(z.string(), z.record(z.string(), z.unknown())) })
      .parse(await (await server.ask(`/api/openapi.json`)).json());
    const described = Object.entries(api.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path.replace(/\{(\w+)\}/g, ':$1')}`),
    );
    const served = servedRoutes(server.app.router.stack as unknown as Layer[]).filter((route) =>
      route.includes(' /api/'),
    );
    expect(served.sort()).toEqual(described.sort());
    expect(described).toHaveLength(Object.keys(ROUTES).length);
  });
});

interface Layer {
  readonly route?: { readonly path: string; readonly stack: readonly { readonly method: string }[] };
  readonly handle: { readonly stack?: readonly Layer[] };
}

/** 'get /api/songs' for each route that Express has, in routers too. */
function servedRoutes(stack: readonly Layer[]): string[] {
  return stack.flatMap(({ route, handle }) =>
    route
      ? [...new Set(route.stack.map((s) => `${s.method} ${route.path}`))]
      : servedRoutes(handle.stack ?? []),
  );
}
