import { afterAll, beforeAll, describe, expect, it } from 'vitest';
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
    const answer = await server.ask(`/api/songs/${song.id}/formats/${id}`);
    expect(answer.headers.get('content-type')).toContain(mime);
    expect(await answer.text()).toBe(write((await open(song.id)).document));
  });

  it('answer 404 for what is not there and 400 for what is no id', async () => {
    expect((await server.ask(`/api/songs/3fa85f64-5717-4562-b3fc-2c963f66afa6`)).status).toBe(404);
    expect((await server.ask(`/api/songs/1;drop`)).status).toBe(400);
    expect((await server.ask(`/api/nothing`)).status).toBe(404);
    expect((await server.ask(`/api/songs/${song.id}/formats/nothing`)).status).toBe(400);
  });

  it('stand on the shelf until they are removed, with all that belongs to them', async () => {
    const list = async (): Promise<unknown[]> => (await (await server.ask(`/api/songs`)).json()) as unknown[];
    expect(await list()).toHaveLength(1);
    expect((await server.ask(`/api/songs/${song.id}`, { method: 'DELETE' })).status).toBe(204);
    expect(await list()).toEqual([]);
    expect((await server.ask(`/api/recordings/${song.recording?.id ?? ''}/audio`)).status).toBe(404);
  });
});

describe('borders', () => {
  const ask = (headers: Record<string, string>): Promise<Response> => server.ask(`/api/songs`, { headers });

  it('answers its own page and refuses others', async () => {
    expect((await ask({ Origin: server.url })).status).toBe(200);
    expect((await ask({ Origin: 'http://127.0.0.1:1' })).status).toBe(403);
    expect((await ask({ Origin: 'https://example.org' })).status).toBe(403);
    expect((await ask({ 'Sec-Fetch-Site': 'cross-site' })).status).toBe(403);
  });

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
