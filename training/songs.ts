/** Generated songs, read back from `.cache/training/songs`. */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ANALYSIS_SAMPLE_RATE, type StereoSignal } from '@wild-needle/core/mir';
import { COUNTED_SONGS_FROM, ROUGH_SONGS_FROM, type Truth } from './material/song';
import { playedFast, tapeSpeed, truthPlayedFast } from './material/tape-speed';

const SONGS = join(import.meta.dirname, '../.cache/training/songs');

/** Plain songs below are kept for validation, and rough ones from one seed up to another. */
const FIRST_TRAINING_SEED = 1000;
const ROUGH_VALIDATION = [4000, 4040];
const COUNTED_VALIDATION_UNTIL = 5060;

/** What a seed makes, see `material/song.ts`, and whether it is learned from. */
export type SongKind =
  'plain' | 'rough' | 'counted' | 'plain validation' | 'rough validation' | 'counted validation';

export function kindOfSong(seed: number): SongKind {
  if (seed < FIRST_TRAINING_SEED) return 'plain validation';
  if (seed < ROUGH_SONGS_FROM) return 'plain';
  if (seed >= COUNTED_SONGS_FROM) return seed < COUNTED_VALIDATION_UNTIL ? 'counted validation' : 'counted';
  return seed >= ROUGH_VALIDATION[0] && seed < ROUGH_VALIDATION[1] ? 'rough validation' : 'rough';
}

export function songFile(seed: number, ending: string): string {
  return join(SONGS, `${seed}.${ending}`);
}

function seedsOnDisk(): number[] {
  return readdirSync(SONGS)
    .filter((name) => name.endsWith('.json'))
    .map((name) => Number(name.slice(0, -5)))
    .sort((a, b) => a - b);
}

export function seedsOf(...kinds: readonly SongKind[]): number[] {
  return seedsOnDisk().filter((seed) => kinds.includes(kindOfSong(seed)));
}

interface Song {
  readonly signal: StereoSignal;
  readonly truth: Truth;
}

interface SongFile {
  readonly channels: 1 | 2;
  readonly truth: Truth;
}

function readSongFile(seed: number): SongFile {
  return JSON.parse(readFileSync(songFile(seed, 'json'), 'utf8')) as SongFile;
}

/** Plain songs for validation are heard as they were made. */
function speedOf(seed: number): number {
  return kindOfSong(seed) === 'plain validation' ? 0 : tapeSpeed(seed);
}

/** What is true of the song at the speed that strokes and chords are learned at. */
export function readTapedTruth(seed: number): Truth {
  return truthPlayedFast(readSongFile(seed).truth, speedOf(seed));
}

/** Strokes and chords are read one after the other from the same song. */
let lastTaped: { readonly seed: number; readonly song: Song } | null = null;

/** The song at the speed that strokes and chords are learned at. */
export function readTapedSong(seed: number): Song {
  if (lastTaped?.seed !== seed) lastTaped = { seed, song: readAt(seed, speedOf(seed)) };
  return lastTaped.song;
}

export function readSong(seed: number): Song {
  return readAt(seed, 0);
}

function readAt(seed: number, semitones: number): Song {
  const { channels: count, truth } = readSongFile(seed);
  const file = playedFast(readFileSync(songFile(seed, 'pcm')), count, ANALYSIS_SAMPLE_RATE, semitones);
  const all = new Int16Array(file.buffer, file.byteOffset, file.length / 2);
  const channels = Array.from({ length: count }, (_, c) => {
    const channel = new Float32Array(Math.floor(all.length / count));
    for (let n = 0; n < channel.length; n++) channel[n] = all[n * count + c] / 32768;
    return channel;
  });
  return { signal: { channels, sampleRate: ANALYSIS_SAMPLE_RATE }, truth: truthPlayedFast(truth, semitones) };
}

/** Where the core reads them from: beside the step that they decide for. */
export function writeWeights(step: 'strokes' | 'chords' | 'meter', weights: object): void {
  const path = join(import.meta.dirname, `../core/src/mir/${step}/${step}.json`);
  writeFileSync(path, `${JSON.stringify(weights)}\n`);
}
