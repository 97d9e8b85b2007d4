import { describe, expect, it } from 'vitest';
import { parseTuning, STANDARD_TUNING } from '../guitar';
import type { HeardStrum } from '../mir';
import { aboveLowestString } from './inverted-fifths';
import { heardFifth } from './test-strum';

const strum = (...midi: number[]): HeardStrum =>
  heardFifth(midi, 2, [
    { midi: [38, 45], probability: 0.05 },
    { midi: [45, 50], probability: 0.03 },
    { midi: [45, 52], probability: 0.02 },
  ]);
const FIFTHS = Array.from({ length: 15 }, () => strum(40, 47));
const heard = (strums: readonly HeardStrum[], tuning = STANDARD_TUNING, isGiven = false): number[][] =>
  aboveLowestString(strums, tuning, isGiven).map(({ midi }) => [...midi]);

describe('notes that no string has', () => {
  it('go where an inverted fifth is left, and so do readings that no string has', () => {
    const [first, ...others] = aboveLowestString([strum(38, 45, 50), ...FIFTHS], STANDARD_TUNING, false);
    expect(first).toMatchObject({ midi: [45, 50], rootPc: 2, confidence: 0.9 });
    expect(first.alternatives.map((a) => a.midi)).toEqual([[45, 52]]);
    expect(others).toEqual(FIFTHS);
  });

  it('stay where something else is left, or the string has them', () => {
    expect(heard([strum(38, 45), ...FIFTHS])[0]).toEqual([38, 45]);
    expect(heard([strum(38, 45, 50), ...FIFTHS], parseTuning('D2,A2,D3,G3,B3,E4'))[0]).toEqual([38, 45, 50]);
    expect(heard([strum(), ...FIFTHS])[0]).toEqual([]);
  });

  it('stay where many others lie too low: the tuning was guessed wrong, unless it was not guessed', () => {
    const low = [strum(38, 45, 50), strum(38, 45), strum(38), ...FIFTHS];
    expect(heard(low)[0]).toEqual([38, 45, 50]);
    expect(heard(low, STANDARD_TUNING, true)[0]).toEqual([45, 50]);
  });

  it('counts the capo', () => {
    expect(
      heard([strum(41, 48, 53), ...FIFTHS.map(() => strum(47))], { ...STANDARD_TUNING, capo: 2 })[0],
    ).toEqual([48, 53]);
  });
});

// Intermodulation of third order, 2 f1 - f2, as handbooks of amplifiers give it (from memory; it follows from the cube of a sum of
// sines): of a fourth, 3 to 4, it is the octave under its upper note.
describe('a driven fourth', () => {
  it('sounds the octave below its root', () => {
    const [rate, low, high] = [8000, 300, 400];
    const driven = Float64Array.from({ length: rate }, (_, n) => {
      const t = (2 * Math.PI * n) / rate;
      const v = Math.sin(low * t) + Math.sin(high * t);
      return v + 0.5 * v ** 3;
    });
    const level = (hz: number): number => {
      let [re, im] = [0, 0];
      driven.forEach((v, n) => {
        re += v * Math.cos((2 * Math.PI * hz * n) / rate);
        im += v * Math.sin((2 * Math.PI * hz * n) / rate);
      });
      return Math.hypot(re, im) / rate;
    };
    expect(level(high / 2)).toBeGreaterThan(0.1);
    expect(level(high / 2 + 50)).toBeLessThan(1e-6);
  });
});
