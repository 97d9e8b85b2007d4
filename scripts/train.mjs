/**
 * `npm run train`: makes the training songs and trains what hears them, see training/README.md. By its parts about
 * an hour and a half on two cores; songs that were made already are kept in `.cache/training`.
 */
import { spawn } from 'node:child_process';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';

/** Validation songs, the training songs for either core, and the long ones that the meter is learned from. */
const SEEDS = {
  validation: [1, 40],
  first: [1000, 1500],
  second: [1500, 1930],
  long: [2000, 2160],
};

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
  const make = (range) => run('training/generate.ts', ...range);
  await Promise.all([
    make(SEEDS.validation)
      .then(() => make(SEEDS.first))
      .then(() => make(SEEDS.long)),
    make(SEEDS.second),
  ]);
  say('Training …');
  await Promise.all([
    run('training/train-strokes.ts').then(() => run('training/train-meter.ts')),
    run('training/train-chords.ts'),
  ]);
}

main().catch(endOnStop);
