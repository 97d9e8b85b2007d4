/** Generated songs, read back from `.cache/training/songs`. */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ANALYSIS_SAMPLE_RATE, type StereoSignal } from '@wild-needle/core/mir';
import type { Truth } from './material/song';

const SONGS = join(import.meta.dirname, '../.cache/training/songs');

/** Songs below are kept for validation. */
const FIRST_TRAINING_SEED = 1000;

export function songFile(seed: number, ending: string): string {
  return join(SONGS, `${seed}.${ending}`);
}

function seedsOnDisk(): number[] {
  return readdirSync(SONGS)
    .filter((name) => name.endsWith('.json'))
    .map((name) => Number(name.slice(0, -5)))
    .sort((a, b) => a - b);
}

export function seedsForTraining(): number[] {
  return seedsOnDisk().filter((seed) => seed >= FIRST_TRAINING_SEED);
}

export function seedsForValidation(): number[] {
  return seedsOnDisk().filter((seed) => seed < FIRST_TRAINING_SEED);
}

interface SongFile {
  readonly channels: 1 | 2;
  readonly truth: Truth;
}

function readSongFile(seed: number): SongFile {
  return JSON.parse(readFileSync(songFile(seed, 'json'), 'utf8')) as SongFile;
}

export function readTruth(seed: number): Truth {
  return readSongFile(seed).truth;
}

export function readSong(seed: number): { signal: StereoSignal; truth: Truth } {
  const { channels: count, truth } = readSongFile(seed);
  const file = readFileSync(songFile(seed, 'pcm'));
  const all = new Int16Array(file.buffer, file.byteOffset, file.length / 2);
  const channels = Array.from({ length: count }, (_, c) =>
    Float32Array.from({ length: Math.floor(all.length / count) }, (_v, n) => all[n * count + c] / 32768),
  );
  return { signal: { channels, sampleRate: ANALYSIS_SAMPLE_RATE }, truth };
}

export function writeWeights(name: string, weights: object): void {
  const folder = join(import.meta.dirname, '../core/src/mir/weights');
  mkdirSync(folder, { recursive: true });
  writeFileSync(join(folder, `${name}.json`), `${JSON.stringify(weights)}\n`);
}
