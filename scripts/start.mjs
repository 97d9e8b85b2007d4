/**
 * `npm start`: everything from a fresh clone to a running application. Each step does nothing when its result
 * is there already. Settings: WN_PORT, WN_DATA_DIR, WN_DATABASE_URL, WN_DEMO (see README).
 */
import { spawn } from 'node:child_process';
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { backUpIfDue } from './lib/backup.mjs';
import { buildIfStale } from './lib/build.mjs';
import {
  lockDataFolder,
  noteEnded,
  noteRunning,
  prepareDataFolder,
  waitForLast,
} from './lib/data-folder.mjs';
import { onParentGone } from './lib/parents.mjs';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { endOnStop, say } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';

/** Loads the demo songs on an empty shelf, also where that was cut short: songs that are there already are known again. */
async function loadDemo(port, dataDir) {
  const loading = join(dataDir, 'demo-loading');
  const songs = await (await fetch(`http://127.0.0.1:${port}/api/songs`)).json();
  if (process.env.WN_DEMO === '0' || (songs.length > 0 && !existsSync(loading))) return;
  say('Rendering the demo songs …');
  writeFileSync(loading, '');
  const child = spawn(process.execPath, ['--import', 'tsx', 'demo/seed/main.ts', String(port)], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  const status = await new Promise((done) => child.on('exit', done));
  if (status === 0) rmSync(loading, { force: true });
  else say('The demo songs could not be loaded; everything else works.');
}

async function main() {
  const dataDir = resolve(process.env.WN_DATA_DIR || join(ROOT, '.data'));
  prepareDataFolder(dataDir);
  await lockDataFolder(dataDir);
  ensureNpmPackages();
  const ownDatabase = !process.env.WN_DATABASE_URL;
  ensureDebianPackages(ownDatabase ? ['postgresql-15', 'ffmpeg'] : ['ffmpeg']);
  buildIfStale();
  await waitForLast(dataDir);

  let postgres = null;
  let server = null;
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await server?.stop();
    await postgres?.stop();
    noteEnded(dataDir);
    process.exit(process.exitCode ?? 0);
  };
  // A closed terminal takes the output along.
  process.stdout.on('error', () => undefined);
  process.stderr.on('error', () => undefined);
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop());
  onParentGone(() => void stop());

  try {
    postgres = ownDatabase ? await startPostgres(dataDir) : null;
    postgres?.watch();
    if (!stopping) {
      server = startServer({
        env: { WN_DATABASE_URL: process.env.WN_DATABASE_URL || postgres.url, WN_DATA_DIR: dataDir },
      });
      const port = await server.ready;
      const url = `http://127.0.0.1:${port}`;
      noteRunning(dataDir, { url, serverPid: server.child.pid });
      await loadDemo(port, dataDir);
      if (!stopping) say(`Wild Needle is ready at ${url}`);
      if (postgres) backUpIfDue(dataDir, postgres);
    }
  } catch (error) {
    if (!stopping) {
      process.stderr.write(`${error.message}\n`);
      process.exitCode = 1;
    }
    await stop();
  }
  await server?.ended;
  process.exitCode ||= stopping ? 0 : 1;
  await stop();
}

main().catch(endOnStop);
