/**
 * `npm run train`: makes the training songs and trains what hears them, see training/README.md. By its parts it takes
 * less than two hours on two cores; songs that were made already are kept in `.cache/training`.
 */
import { spawn } from 'node:child_process';
import { ensureDebianPackages, ensureNpmPackages, ROOT } from './lib/packages.mjs';
import { endOnStop, say, Stop } from './lib/say.mjs';

/** Ranges of seeds for either core: validation songs, plain ones, rough ones, those that are counted. */
const SONGS = [
  [
    [1, 40],
    [1000, 1930],
    [4000, 4090],
    [5000, 5240],
  ],
  [
    [3000, 3249],
    [3300, 3542],
    [3600, 3683],
    [4090, 4360],
    [5240, 5480],
  ],
];
/** Those of `training/train-chords.ts`, one for either core. */
const CHORD_SEEDS = [9, 10];

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
  await Promise.all(
    SONGS.map(async (ranges) => {
      for (const range of ranges) await run('training/generate.ts', ...range);
    }),
  );
  say('Training …');
  await Promise.all(CHORD_SEEDS.map((seed) => run('training/train-chords.ts', seed)));
  await run('training/train-chords.ts');
  await Promise.all([run('training/train-strokes.ts'), run('training/train-meter.ts')]);
}

main().catch(endOnStop);
