/** Generated songs, read back from `.cache/training/songs`. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ANALYSIS_SAMPLE_RATE, type StereoSignal } from '@wild-needle/core/mir';
import { LONG_SONGS_FROM, type Truth } from './material/song';

const SONGS = join(import.meta.dirname, '../.cache/training/songs');

/** Songs below are kept for validation. */
export const FIRST_TRAINING_SEED = 1000;

/** The meter is learned from all training songs, strokes and chords from the short ones. */
export function isForSounds(seed: number): boolean {
  return seed >= FIRST_TRAINING_SEED && seed < LONG_SONGS_FROM;
}

export function songFile(seed: number, ending: string): string {
  return join(SONGS, `${seed}.${ending}`);
}

export function seedsOnDisk(): number[] {
  return readdirSync(SONGS)
    .filter((name) => name.endsWith('.json'))
    .map((name) => Number(name.slice(0, -5)))
    .sort((a, b) => a - b);
}

export function readSong(seed: number): { signal: StereoSignal; truth: Truth } {
  const { channels: count, truth } = JSON.parse(readFileSync(songFile(seed, 'json'), 'utf8')) as {
    channels: 1 | 2;
    truth: Truth;
  };
  const file = readFileSync(songFile(seed, 'pcm'));
  const all = new Int16Array(file.buffer, file.byteOffset, file.length / 2);
  const channels = Array.from({ length: count }, (_, c) =>
    Float32Array.from({ length: Math.floor(all.length / count) }, (_v, n) => all[n * count + c] / 32768),
  );
  return { signal: { channels, sampleRate: ANALYSIS_SAMPLE_RATE }, truth };
}
