/** A server of the test's own, on a database of its own; can be killed and started again on the same data. */
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { test as base } from '@playwright/test';

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

/** `app`: an empty shelf for each test. `demoApp`: one server with the demo songs for all tests of a file. */
export const test = base.extend<{ app: App }, { demoApp: App }>({
  // eslint-disable-next-line no-empty-pattern -- Playwright reads the fixtures from the pattern
  app: async ({}, use) => {
    const app = await startApp({ demo: false });
    await use(app);
    await app.stop();
  },
  demoApp: [
    // eslint-disable-next-line no-empty-pattern -- as above
    async ({}, use) => {
      const app = await startApp({ demo: true });
      await use(app);
      await app.stop();
    },
    { scope: 'worker', timeout: 120_000 },
  ],
});
