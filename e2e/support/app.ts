/** Servers for the tests, each on a database of its own; one can be killed and started again on the same data. */
import { mkdtempSync, readFileSync } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { test as base } from '@playwright/test';
import {
  DEFAULT_SETTINGS,
  openSongSchema,
  ROUTES,
  songSummarySchema,
  type OpenSong,
} from '@wild-needle/contract';
import { z } from 'zod';
import { renderRiff } from './fluidsynth-riff';

const ROOT = join(import.meta.dirname, '../..');

export interface App {
  readonly url: string;
}

export interface OwnApp extends App {
  /** Ends the server as a crash would. */
  kill(): Promise<void>;
  /** Starts it again with the same data, on the same port. */
  restart(): Promise<void>;
}

function databaseUrl(): string {
  const admin = process.env['WN_TEST_DATABASE_URL'];
  if (!admin) throw new Error('run the browser tests with npm run test:e2e, which starts PostgreSQL');
  const url = new URL(admin);
  url.pathname = `/e2e_${randomUUID().replaceAll('-', '')}`;
  return url.href;
}

async function startApp(): Promise<OwnApp & { stop(): Promise<void> }> {
  const env = {
    ...process.env,
    WN_DATABASE_URL: databaseUrl(),
    // Of its own: a server tidies what another has left on its way in.
    WN_DATA_DIR: mkdtempSync(join(process.env['WN_TEST_DATA_DIR'] ?? tmpdir(), 'app-')),
  };
  let child: ChildProcess | null = null;
  let port = 0;

  const start = async (): Promise<void> => {
    const started = spawn(process.execPath, ['--import', 'tsx', 'server/src/app/main.ts'], {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      env: { ...env, WN_PORT: String(port) },
    });
    child = started;
    port = await new Promise<number>((resolve, reject) => {
      started.on('message', (message: { port?: number; problem?: string }) => {
        if (message.port !== undefined) resolve(message.port);
        else reject(new Error(message.problem));
      });
      started.on('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  };
  const end = async (signal: NodeJS.Signals): Promise<void> => {
    const running = child;
    if (running?.exitCode !== null || running.signalCode !== null) return;
    const ended = new Promise((resolve) => running.on('exit', resolve));
    running.kill(signal);
    await ended;
  };

  await start();
  return {
    get url() {
      return `http://127.0.0.1:${port}`;
    },
    kill: () => end('SIGKILL'),
    restart: start,
    stop: () => end('SIGTERM'),
  };
}

/** Brings the demo songs in. */
function seedDemo(url: string): void {
  const { port } = new URL(url);
  spawnSync(process.execPath, ['--import', 'tsx', 'demo/seed/main.ts', port], {
    cwd: ROOT,
    stdio: 'inherit',
  });
}

async function savedSongs(url: string): Promise<OpenSong[]> {
  const ask = async (path: string): Promise<unknown> => (await fetch(`${url}${path}`)).json();
  const shelf = songSummarySchema.array().parse(await ask(ROUTES.listSongs.path));
  return Promise.all(
    shelf.map(async ({ id }) => openSongSchema.parse(await ask(ROUTES.openSong.path.replace(':id', id)))),
  );
}

/** The songs when the analysis of each has written its draft. */
async function draftedSongs(url: string): Promise<OpenSong[]> {
  for (;;) {
    const songs = await savedSongs(url);
    if (songs.every(({ job }) => job?.status !== 'queued' && job?.status !== 'running')) return songs;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}

/** Saves every song as it was, where a test before has changed it. */
async function putBack(url: string, before: readonly OpenSong[]): Promise<void> {
  const now = new Map((await savedSongs(url)).map((song) => [song.id, song]));
  for (const { id, document } of before) {
    const song = now.get(id);
    if (!song || JSON.stringify(song.document) === JSON.stringify(document)) continue;
    const answer = await fetch(`${url}${ROUTES.saveSong.path.replace(':id', id)}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ baseRevision: song.revision, document }),
    });
    if (!answer.ok) throw new Error(`song ${id} could not be put back: ${await answer.text()}`);
  }
}

/** Takes everything away that a test has left. */
async function empty(url: string): Promise<void> {
  const remove = async (list: string, one: string): Promise<void> => {
    const left = z.array(z.object({ id: z.string() })).parse(await (await fetch(`${url}${list}`)).json());
    for (const { id } of left) await fetch(`${url}${one.replace(':id', id)}`, { method: 'DELETE' });
  };
  await remove(ROUTES.listSongs.path, ROUTES.deleteSong.path);
  await remove(ROUTES.listRemoved.path, ROUTES.removeForGood.path);
  await remove(ROUTES.listShapes.path, ROUTES.forgetShape.path);
}

/** Brings fluidsynth's riff in, as a file that is dropped on the shelf would be. */
async function importRiff(url: string): Promise<void> {
  const path = renderRiff(mkdtempSync(join(tmpdir(), 'wn-riff-')));
  const answer = await fetch(
    `${url}${ROUTES.importRecording.path}?fileName=${encodeURIComponent(basename(path))}`,
    {
      method: 'POST',
      body: new Uint8Array(readFileSync(path)),
    },
  );
  if (answer.status !== 201) throw new Error(`the riff was not taken: ${await answer.text()}`);
}

/** A browser without settings takes those of the server: each test begins with the usual ones. */
async function usualSettings(url: string): Promise<void> {
  await fetch(`${url}${ROUTES.keepSettings.path}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(DEFAULT_SETTINGS),
  });
}

interface Shared {
  readonly app: App;
  readonly songs: readonly OpenSong[];
}

const OF_WORKER = { scope: 'worker', timeout: 120_000 } as const;

/** A server for all tests of a worker, and what its songs were at first. */
const serverOf = (
  prepare: (url: string) => void | Promise<void>,
): [(none: object, use: (shared: Shared) => Promise<void>) => Promise<void>, typeof OF_WORKER] => [
  // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
  async ({}, use) => {
    const app = await startApp();
    await prepare(app.url);
    await use({ app, songs: await draftedSongs(app.url) });
    await app.stop();
  },
  OF_WORKER,
];

/**
 * One server each for all tests of a worker: `app` with an empty shelf, `demoApp` with the demo songs, `riffApp` with fluidsynth's
 * riff; each test finds them as they were at first, whatever the one before did. `ownApp` is one of the test's own, to be killed.
 */
export const test = base.extend<
  { app: App; demoApp: App; riffApp: App; ownApp: OwnApp },
  { emptyServer: Shared; demoServer: Shared; riffServer: Shared }
>({
  emptyServer: serverOf(() => undefined),
  demoServer: serverOf(seedDemo),
  riffServer: serverOf(importRiff),
  app: async ({ emptyServer: { app } }, use) => {
    await empty(app.url);
    await usualSettings(app.url);
    await use(app);
  },
  demoApp: async ({ demoServer: { app, songs } }, use) => {
    await putBack(app.url, songs);
    await usualSettings(app.url);
    await use(app);
  },
  riffApp: async ({ riffServer: { app, songs } }, use) => {
    await putBack(app.url, songs);
    await usualSettings(app.url);
    await use(app);
  },
  // eslint-disable-next-line no-empty-pattern -- as above
  ownApp: async ({}, use) => {
    const app = await startApp();
    await use(app);
    await app.stop();
  },
});
