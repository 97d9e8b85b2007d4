/** `npm run check`: types, lint, format, borders between folders, unused code. Runs all and fails if one does. */
import { Buffer } from 'node:buffer';
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { endOnStop, say } from './lib/say.mjs';

/** The longest first. */
const CHECKS = [
  ['lint', 'eslint', ['--max-warnings=0', '.']],
  ['types: core', 'tsc', ['-p', 'core/tsconfig.json']],
  ['types: core with tests', 'tsc', ['-p', 'core/tsconfig.spec.json']],
  ['types: contract', 'tsc', ['-p', 'contract/tsconfig.json']],
  ['types: server', 'tsc', ['-p', 'server/tsconfig.json']],
  ['types: web', 'ngc', ['-p', 'web/tsconfig.spec.json']],
  ['types: e2e, demo, bench, training', 'tsc', ['-p', 'tsconfig.json']],
  ['format', 'prettier', ['--check', '--log-level=warn', '.']],
  [
    'borders',
    'depcruise',
    [
      '--config',
      '.dependency-cruiser.cjs',
      'core',
      'contract',
      'server',
      'web/src',
      'demo',
      'e2e',
      'bench',
      'training',
    ],
  ],
  ['unused code', 'knip', ['--no-progress']],
];

/** Runs one, prints what it said when it is done. True when it found nothing. */
function run([name, command, args]) {
  return new Promise((resolve) => {
    const child = spawn(join(ROOT, 'node_modules/.bin', command), args, {
      cwd: ROOT,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    const said = [];
    child.stdout.on('data', (part) => said.push(part));
    child.stderr.on('data', (part) => said.push(part));
    const end = (isFine) => {
      process.stdout.write(Buffer.concat(said));
      say(`${isFine ? 'ok    ' : 'FAILED'} ${name}`);
      resolve(isFine);
    };
    child.on('error', (error) => {
      said.push(Buffer.from(`${error.message}\n`));
      end(false);
    });
    child.on('close', (status) => end(status === 0));
  });
}

/** As many at a time as there are cores. */
async function main() {
  ensureNpmPackages();
  const waiting = [...CHECKS];
  let isFine = true;
  const work = async () => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      const passed = await run(next);
      isFine &&= passed;
    }
  };
  await Promise.all(Array.from({ length: Math.min(4, availableParallelism()) }, work));
  process.exit(isFine ? 0 : 1);
}

main().catch(endOnStop);
