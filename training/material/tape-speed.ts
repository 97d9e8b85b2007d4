/**
 * Half of the songs are learned as from a tape that runs fast or slow by whole semitones: a riff on low E is not always the
 * sound of an open string, and the tone of amplifier, drums and codec is not always where it stands at full speed.
 */
import { createRandom } from '@wild-needle/core/units';
import { createChance } from './chance';
import { ffmpeg } from './ffmpeg';
import type { Truth } from './song';

/** Seeds of speeds, so that they do not repeat the first draws of the songs. */
const SPEED_SEEDS = 1_000_000;
/** Semitones and their share: more upwards, where tunings drawn for the songs end at E. */
const SPEEDS = [
  [0, 8],
  [-2, 1],
  [-1, 1.5],
  [1, 1.5],
  [2, 2],
  [3, 1],
  [4, 1],
] as const;

/** Times that a tape runs faster on which all sounds so many semitones higher. */
function speedRatio(semitones: number): number {
  return 2 ** (semitones / 12);
}

/** Semitones that the tape of this song runs fast. */
export function tapeSpeed(seed: number): number {
  return createChance(createRandom(SPEED_SEEDS + seed)).weighted(SPEEDS);
}

/** Interleaved samples of 16 bits as they sound on that tape. */
export function playedFast(samples: Buffer, channels: 1 | 2, sampleRate: number, semitones: number): Buffer {
  if (semitones === 0) return samples;
  const raw = ['-f', 's16le', '-ac', String(channels)];
  const taped = Math.round(sampleRate * speedRatio(semitones));
  return ffmpeg([...raw, '-ar', String(taped), '-i', '-', ...raw, '-ar', String(sampleRate), '-'], samples);
}

/** What is true of the song on that tape. */
export function truthPlayedFast(truth: Truth, semitones: number): Truth {
  const ratio = speedRatio(semitones);
  return {
    ...truth,
    bpm: truth.bpm * ratio,
    barsS: truth.barsS.map((s) => s / ratio),
    sections: truth.sections.map((section) => ({ ...section, startS: section.startS / ratio })),
    strums: truth.strums.map((strum) => ({
      ...strum,
      timeS: strum.timeS / ratio,
      endS: strum.endS / ratio,
      midi: strum.midi.map((m) => m + semitones),
      rootPc: strum.rootPc === null ? null : (strum.rootPc + semitones + 12) % 12,
    })),
  };
}
