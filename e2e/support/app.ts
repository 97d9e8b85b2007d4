/** A server of the test's own, on a database of its own; can be killed and started again on the same data. */
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { test as base } from '@playwright/test';
import { openSongSchema, ROUTES, songSummarySchema, type OpenSong } from '@wild-needle/contract';

const ROOT = join(import.meta.dirname, '../..');

export interface App {
  readonly url: string;
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

export async function startApp({ demo }: { demo: boolean }): Promise<App & { stop(): Promise<void> }> {
  const env = {
    ...process.env,
    WN_DATABASE_URL: databaseUrl(),
    WN_DATA_DIR: process.env['WN_TEST_DATA_DIR'],
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
  if (demo) {
    spawnSync(process.execPath, ['--import', 'tsx', 'demo/seed/main.ts', String(port)], {
      cwd: ROOT,
      stdio: 'inherit',
    });
  }
  return {
    get url() {
      return `http://127.0.0.1:${port}`;
    },
    kill: () => end('SIGKILL'),
    restart: start,
    stop: () => end('SIGTERM'),
  };
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

/**
 * `app`: an empty shelf for each test. `demoApp`: one server with the demo songs for all tests of a worker; each
 * test finds the songs as they were at first, whatever the one before did to them.
 */
export const test = base.extend<{ app: App; demoApp: App }, { demoServer: App; demoSongs: OpenSong[] }>({
  // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
  app: async ({}, use) => {
    const app = await startApp({ demo: false });
    await use(app);
    await app.stop();
  },
  demoServer: [
    // eslint-disable-next-line no-empty-pattern -- as above
    async ({}, use) => {
      const app = await startApp({ demo: true });
      await use(app);
      await app.stop();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  demoSongs: [
    async ({ demoServer }, use) => use(await draftedSongs(demoServer.url)),
    { scope: 'worker', timeout: 120_000 },
  ],
  demoApp: async ({ demoServer, demoSongs }, use) => {
    await putBack(demoServer.url, demoSongs);
    await use(demoServer);
  },
});
