/** Sounds and strums for the specs of this folder: what is tested is the hearing, so they are as plain as can be. */
import { createRandom } from '../units';
import { midiToHz } from '../theory';
import type { HeardStrum } from './types';

export const RATE = 22050;

/** Notes with ten partials each, struck at `timeS` with a sharp attack and decaying. */
export function addChord(
  out: Float32Array,
  timeS: number,
  seconds: number,
  notes: readonly number[],
  sampleRate = RATE,
): void {
  const start = Math.round(timeS * sampleRate);
  const length = Math.min(out.length - start, Math.round(seconds * sampleRate));
  for (const note of notes) {
    for (let h = 1; h <= 10; h++) {
      const step = (2 * Math.PI * midiToHz(note) * h) / sampleRate;
      for (let i = 0; i < length; i++) {
        out[start + i] +=
          (0.2 / h) *
          Math.sin(step * i + h) *
          Math.exp((-2 * i) / sampleRate) *
          Math.min(1, i / 40, (length - i) / 400);
      }
    }
  }
}

/** A short noise. */
export function addClick(out: Float32Array, timeS: number, random = createRandom(5)): void {
  const start = Math.round(timeS * RATE);
  for (let i = 0; i < 600 && start + i < out.length; i++)
    out[start + i] += 0.6 * (2 * random() - 1) * Math.exp(-i / 90);
}

/** A power chord of two notes. */
export function strumOf(
  timeS: number,
  endS: number,
  root: number,
  marks: Partial<HeardStrum> = {},
): HeardStrum {
  return {
    timeS,
    endS,
    midi: [root, root + 7],
    rootPc: root % 12,
    quality: '5',
    palmMuted: false,
    dead: false,
    confidence: 1,
    alternatives: [],
    ...marks,
  };
}
