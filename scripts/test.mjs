/**
 * `npm test`: unit, reference checks, server on a real PostgreSQL, the start and its faults, end to end in Chromium; installs what it
 * needs. One part alone: `npm run test:server`, `npm run test:start`, `npm run test:e2e`; `npm run screenshots` and
 * `npm run bench:screen` drive the same browser.
 */
import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildIfStale } from './lib/build.mjs';
import { prepareDataFolder } from './lib/data-folder.mjs';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { endOnStop, say } from './lib/say.mjs';

const [only = 'all', ...rest] = process.argv.slice(2);
/** What drives the browser, and its project. */
const BROWSER = { all: 'tasks', e2e: 'tasks', screenshots: 'screenshots', bench: 'bench' };

/** Tasks on the demo songs or songs of their own, and two fifths of the time of all: the first browser takes as long as the others together. */
const SECOND_BROWSER = ['sections', 'dense-riff', 'put-right', 'practice', 'take', 'windows', 'tuning'];

/** Lines of a part that failed, said once more at the end, where they are looked for. */
const TOLD_AGAIN = 60;

/** Names of the parts that have failed. */
const failed = [];

/** Runs a program; says what it said at its end where something else is talking meanwhile. */
function run(name, [command, ...args], { env = {}, isQuiet = false } = {}) {
  if (!isQuiet) say(`\n== ${name}`);
  const child = spawn('npx', ['--no-install', command, ...args], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env },
  });
  let said = '';
  for (const stream of ['stdout', 'stderr']) {
    child[stream].on('data', (part) => {
      said += part;
      if (!isQuiet) process[stream].write(part);
    });
  }
  return new Promise((resolve) => {
    child.on('close', (status) => {
      if (isQuiet) say(`\n== ${name}\n${said}`);
      if (status !== 0)
        failed.push(`${name}, which ended with:\n${said.split('\n').slice(-TOLD_AGAIN).join('\n')}`);
      resolve(status === 0);
    });
  });
}

/** One after the other, all of them. */
async function inTurn(parts) {
  let passed = true;
  for (const part of parts) passed = (await part()) && passed;
  return passed;
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
    'poppler-utils',
    'lilypond',
  ]);
  // Outside of the checkout, so that a closed home folder does not matter; gone afterwards.
  const dataDir = mkdtempSync(join(tmpdir(), 'wild-needle-test-'));
  prepareDataFolder(dataDir);
  const postgres = await startPostgres(dataDir, { mayCreateDatabases: true });
  const env = { WN_TEST_DATABASE_URL: postgres.adminUrl, WN_TEST_DATA_DIR: dataDir };
  const isQuiet = only === 'all';
  const server = () => run('Server', ['vitest', 'run', '--project', 'server', ...rest], { env, isQuiet });
  const start = () => run('Start', ['vitest', 'run', '--project', 'start', ...rest], { isQuiet });
  const faults = () => run('Faults', ['tsx', 'bench/faults/main.ts', 'small'], { isQuiet });
  const browser = (files = [], { name = 'browser', isQuiet: isSilent = false } = {}) =>
    run(
      'Browser',
      [
        ...['playwright', 'test', `--project=${BROWSER[only]}`, `--output=.cache/test-results/${name}`],
        ...files,
        ...rest,
      ],
      { env, isQuiet: isSilent },
    );
  let passed = true;
  try {
    if (only === 'all') {
      const projects = ['unit', 'web', 'checks'].flatMap((project) => ['--project', project]);
      passed = await run('Unit tests and reference checks', ['vitest', 'run', ...projects]);
    }
    if (only !== 'server') buildIfStale();
    if (only === 'server') passed = await server();
    else if (only === 'start') passed = await inTurn([start, faults]);
    else if (only === 'all') {
      // The browser waits for what is seen, the others for databases that start: side by side they take half the time, and where
      // the others end first, a second browser takes a part of the tasks.
      const tasks = readdirSync(join(ROOT, 'e2e/tasks'));
      const isSecond = (file) => SECOND_BROWSER.some((task) => file === `${task}.spec.ts`);
      const first = tasks.filter((file) => !isSecond(file));
      const second = () => browser(tasks.filter(isSecond), { name: 'second-browser', isQuiet });
      const both = await Promise.all([browser(first), inTurn([server, start, faults, second])]);
      passed = both.every(Boolean) && passed;
    } else passed = await browser();
  } finally {
    await postgres.stop();
    rmSync(dataDir, { recursive: true, force: true });
  }
  say(passed ? '\nAll tests passed' : `\nFailed: ${failed.join('\n')}`);
  process.exit(passed ? 0 : 1);
}

main().catch(endOnStop);
