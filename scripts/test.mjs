/**
 * `npm test`: unit, reference checks, server on a real PostgreSQL, end to end in Chromium; installs what it needs.
 * One part alone: `npm run test:server`, `npm run test:e2e`; `npm run screenshots` and `npm run bench:screen` drive
 * the same browser.
 */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildIfStale } from './lib/build.mjs';
import { prepareDataFolder } from './lib/data-folder.mjs';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { endOnStop, say } from './lib/say.mjs';

const only = process.argv[2] ?? 'all';

function run(name, args, env = {}) {
  say(`\n== ${name}`);
  const { status } = spawnSync('npx', ['--no-install', ...args], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...env },
  });
  return status === 0;
}

async function main() {
  ensureNpmPackages();
  ensureDebianPackages([
    'postgresql-15',
    'ffmpeg',
    'chromium',
    'fluidsynth',
    'fluid-soundfont-gm',
    'csound-soundfont',
  ]);
  // Outside of the checkout, so that a closed home folder does not matter; gone afterwards.
  const dataDir = mkdtempSync(join(tmpdir(), 'wild-needle-test-'));
  prepareDataFolder(dataDir);
  const postgres = await startPostgres(dataDir, { mayCreateDatabases: true });
  const env = { WN_TEST_DATABASE_URL: postgres.adminUrl, WN_TEST_DATA_DIR: dataDir };
  let passed = true;
  try {
    if (only === 'all')
      passed =
        run('Unit tests and reference checks', [
          'vitest',
          'run',
          '--project',
          'unit',
          '--project',
          'web',
          '--project',
          'checks',
        ]) && passed;
    if (only === 'all' || only === 'server')
      passed = run('Server', ['vitest', 'run', '--project', 'server'], env) && passed;
    if (only !== 'server') {
      buildIfStale();
      const projects = { all: 'tasks', e2e: 'tasks', screenshots: 'screenshots', bench: 'bench' };
      passed =
        run(
          'Browser',
          ['playwright', 'test', `--project=${projects[only]}`, ...process.argv.slice(3)],
          env,
        ) && passed;
    }
  } finally {
    await postgres.stop();
    rmSync(dataDir, { recursive: true, force: true });
  }
  say(passed ? '\nAll tests passed' : '\nSome tests failed');
  process.exit(passed ? 0 : 1);
}

main().catch(endOnStop);
