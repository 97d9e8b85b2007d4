/** What the chord network sees of a generated song, and what is true of it; computed once, kept beside the song. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import {
  CHORD_SHAPES,
  createChordSpectrum,
  HIGHEST_BASS,
  LOWEST_BASS,
  ACTIVATIONS,
  SPECTRUM_SIZE,
  splitStereo,
} from '@wild-needle/core/mir';
import { createRandom, gaussian } from '@wild-needle/core/units';
import type { Truth } from './material/song';
import type { ChordExample } from './nets/chord-training';
import { readTapedSong, readTapedTruth, songFile } from './songs';

/** Raise it when the spectra change: what is kept beside the songs is then computed anew. */
const VERSION = 2;
/** Strums are found this exactly, and the pitch of the recording, when the network is used. */
const ONSET_SCATTER_S = 0.007;
const OFFSET_SCATTER_CENTS = 4;
const AFTER_ONSET_S = 0.012;
const BEFORE_NEXT_S = 0.005;
/** A strum is read for at least so many samples, 45 ms. */
const SHORTEST = 1000;

const OTHER = CHORD_SHAPES.findIndex((shape) => shape.notes === null);

interface Strum {
  readonly timeS: number;
  readonly untilS: number;
  readonly midi: readonly number[];
}

/** All that ring and that the network can name. */
function strumsOf({ strums }: Truth): Strum[] {
  return strums.flatMap(({ timeS, endS, midi, dead }, k) =>
    dead || midi[0] > HIGHEST_BASS || midi[0] < LOWEST_BASS
      ? []
      : [{ timeS, untilS: Math.min(strums[k + 1]?.timeS ?? Infinity, endS), midi }],
  );
}

function shapeOf(midi: readonly number[]): number {
  const above = midi.map((m) => m - midi[0]).join();
  const found = CHORD_SHAPES.findIndex((shape) => shape.notes?.join() === above);
  return found < 0 ? OTHER : found;
}

/** Both spectra of each strum, one after the other; the one of the sides is empty where nothing stands there. */
function spectraOf(seed: number): Float32Array {
  const { signal, truth } = readTapedSong(seed);
  const random = createRandom(seed);
  const { sampleRate } = signal;
  const { mid, side } = splitStereo(signal);
  const extract = createChordSpectrum(sampleRate);
  const strums = strumsOf(truth);
  const all = new Float32Array(strums.length * 2 * SPECTRUM_SIZE);
  strums.forEach(({ timeS, untilS }, k) => {
    const heardS = timeS + ONSET_SCATTER_S * gaussian(random);
    const from = Math.round((heardS + AFTER_ONSET_S) * sampleRate);
    const to = Math.max(from + SHORTEST, Math.round((untilS - BEFORE_NEXT_S) * sampleRate));
    const cents = truth.offsetCents + OFFSET_SCATTER_CENTS * gaussian(random);
    [mid, side].forEach((samples, which) => {
      const at = (2 * k + which) * SPECTRUM_SIZE;
      if (samples) extract(samples, from, to, cents, all.subarray(at, at + SPECTRUM_SIZE));
    });
  });
  return all;
}

export function chordExamples(seed: number): ChordExample[] {
  const file = songFile(seed, `chords-${VERSION}`);
  if (!existsSync(file)) writeFileSync(file, Buffer.from(spectraOf(seed).buffer));
  const bytes = readFileSync(file);
  const all = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4);
  return strumsOf(readTapedTruth(seed)).map(({ midi }, k) => {
    const spectrum = (which: number): Float32Array => {
      const at = (2 * k + which) * SPECTRUM_SIZE;
      return all.subarray(at, at + SPECTRUM_SIZE);
    };
    const side = spectrum(1);
    return {
      mid: spectrum(0),
      side: side.some((v) => v !== 0) ? side : null,
      bass: midi[0],
      shape: shapeOf(midi),
      activation: Uint8Array.from({ length: ACTIVATIONS }, (_, i) => (midi.includes(midi[0] + i) ? 1 : 0)),
    };
  });
}
