/** `npm run check`: types, lint, format, borders between folders, unused code. Runs all and fails if one does. */
import { spawnSync } from 'node:child_process';
import { ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { endOnStop, say } from './lib/say.mjs';

const CHECKS = [
  ['types: core', 'tsc', ['-p', 'core/tsconfig.json']],
  ['types: core with tests', 'tsc', ['-p', 'core/tsconfig.spec.json']],
  ['types: contract', 'tsc', ['-p', 'contract/tsconfig.json']],
  ['types: server', 'tsc', ['-p', 'server/tsconfig.json']],
  ['types: web', 'ngc', ['-p', 'web/tsconfig.spec.json']],
  ['types: e2e, demo, bench, training', 'tsc', ['-p', 'tsconfig.json']],
  ['lint', 'eslint', ['--max-warnings=0', '.']],
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

function main() {
  ensureNpmPackages();
  const failed = CHECKS.filter(([name, command, args]) => {
    const { status } = spawnSync('npx', ['--no-install', command, ...args], {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    say(`${status === 0 ? 'ok    ' : 'FAILED'} ${name}`);
    return status !== 0;
  });
  process.exit(failed.length === 0 ? 0 : 1);
}

try {
  main();
} catch (error) {
  endOnStop(error);
}
