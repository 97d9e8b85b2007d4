import { describe, expect, it } from 'vitest';
import { resample } from '../../dsp';
import { FIRST_HEARD_NOTE, hearNotes } from './heard-notes';
import { addChord, RATE } from '../test-sounds';

const at = (values: Float32Array, midi: number): number => values[midi - FIRST_HEARD_NOTE];

function played(notes: readonly number[], sampleRate = RATE): Float32Array {
  const out = new Float32Array(sampleRate);
  addChord(out, 0.1, 0.8, notes, sampleRate);
  // A clipping amplifier: sums and differences of the tones come in.
  return out.map((v) => Math.tanh(6 * v));
}

const SPAN = { startS: 0.1, endS: 0.8 };

describe('notes of a strum', () => {
  it.each([
    [
      [43, 50, 55],
      [31, 62, 67],
    ],
    [
      [45, 52],
      [33, 64],
    ],
  ])('%j are believed, what distortion adds is not', (notes, made) => {
    const { probability, level } = hearNotes({ mid: played(notes), side: null }, RATE, [SPAN], 0);
    for (const note of notes.slice(0, 2)) expect(at(probability, note)).toBeGreaterThan(0.6);
    for (const note of made) expect(at(probability, note)).toBeLessThan(0.3);
    expect(Math.max(...level)).toBeCloseTo(1, 5);
    expect(at(level, notes[0])).toBeGreaterThan(0.2);
  });

  it('are the mean of several places, and none of none', () => {
    const mid = played([43, 50]);
    const once = hearNotes({ mid, side: null }, RATE, [SPAN], 0);
    const twice = hearNotes({ mid, side: null }, RATE, [SPAN, SPAN], 0);
    expect(at(twice.probability, 43)).toBeCloseTo(at(once.probability, 43), 5);
    expect(hearNotes({ mid, side: null }, RATE, [], 0).probability.every((p) => p === 0)).toBe(true);
  });

  it('are none in silence, and none that noise under -60 dB makes', () => {
    const noise = Float32Array.from({ length: RATE }, (_, n) => 5e-4 * Math.sin(n * n));
    const { probability, level } = hearNotes({ mid: noise, side: null }, RATE, [SPAN], 0);
    expect([...probability, ...level].every((p) => p === 0)).toBe(true);
  });

  it('are the same in sound of another rate, brought to that of the analysis', () => {
    for (const rate of [44100, 48000]) {
      const mid = resample(played([43, 50, 55], rate), rate, RATE);
      expect(Math.abs(mid.length - RATE)).toBeLessThan(3);
      const { probability } = hearNotes({ mid, side: null }, RATE, [SPAN], 0);
      expect(at(probability, 43)).toBeGreaterThan(0.6);
      expect(at(probability, 50)).toBeGreaterThan(0.6);
    }
  });
});
