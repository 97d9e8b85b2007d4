/**
 * `npm run train`: makes the training songs and trains what hears them, see training/README.md. By its parts about
 * an hour on two cores; songs that were made already are kept in `.cache/training`.
 */
import { spawn } from 'node:child_process';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';

/** Validation songs, then the training songs for either core; the second starts at once. */
const SEEDS = [
  [1, 40],
  [1000, 1270],
  [1400, 1630],
];

function run(...args) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--import', 'tsx', ...args.map(String)], {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Stop(`${args[0]} ended with ${code}`))));
  });
}

async function main() {
  ensureNpmPackages();
  ensureDebianPackages([
    'ffmpeg',
    'fluidsynth',
    'fluid-soundfont-gm',
    'timgm6mb-soundfont',
    'musescore-general-soundfont',
  ]);
  say('Making the songs …');
  const [validation, first, second] = SEEDS;
  await Promise.all([
    run('training/generate.ts', ...validation).then(() => run('training/generate.ts', ...first)),
    run('training/generate.ts', ...second),
  ]);
  say('Training …');
  await Promise.all([
    run('training/train-strokes.ts').then(() => run('training/train-meter.ts')),
    run('training/train-chords.ts'),
  ]);
}

main().catch(endOnStop);
