/**
 * `npm start`: everything from a fresh clone to a running application. Each step does nothing when its result
 * is there already. Settings: WN_PORT, WN_DATA_DIR, WN_DATABASE_URL, WN_DEMO (see README).
 */
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { buildIfStale } from './lib/build.mjs';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { endOnStop, say } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';

async function loadDemo(port) {
  const songs = await (await fetch(`http://127.0.0.1:${port}/api/songs`)).json();
  if (songs.length > 0 || process.env.WN_DEMO === '0') return;
  say('Rendering the demo songs …');
  const { status } = spawnSync(process.execPath, ['--import', 'tsx', 'demo/seed/main.ts', String(port)], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (status !== 0) say('The demo songs could not be loaded; everything else works.');
}

async function main() {
  const dataDir = resolve(process.env.WN_DATA_DIR || join(ROOT, '.data'));
  ensureNpmPackages();
  const ownDatabase = !process.env.WN_DATABASE_URL;
  ensureDebianPackages(ownDatabase ? ['postgresql-15', 'ffmpeg'] : ['ffmpeg']);
  const postgres = ownDatabase ? await startPostgres(dataDir) : null;
  let server = null;
  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    await server?.stop();
    postgres?.stop();
    process.exit(process.exitCode ?? 0);
  };
  process.on('SIGINT', () => void stop());
  process.on('SIGTERM', () => void stop());

  try {
    buildIfStale();
    server = startServer({
      env: { WN_DATABASE_URL: process.env.WN_DATABASE_URL || postgres.url, WN_DATA_DIR: dataDir },
    });
    const port = await server.ready;
    await loadDemo(port);
    if (!stopping) say(`Wild Needle is ready at http://127.0.0.1:${port}`);
  } catch (error) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 1;
    await stop();
  }
  await server.ended;
  process.exitCode ||= stopping ? 0 : 1;
  await stop();
}

main().catch(endOnStop);
