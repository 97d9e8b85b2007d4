import { describe, expect, it } from 'vitest';
import { parseTuning, STANDARD_TUNING } from '../guitar';
import type { HeardStrum } from '../mir';
import { withoutOctaveGuitar } from './octave-guitar';
import { heardFifth } from './test-strum';

const strum = (...midi: number[]): HeardStrum =>
  heardFifth(midi, midi[0] % 12, [
    { midi: [45, 52, 57], probability: 0.05 },
    { midi: [45, 52], probability: 0.03 },
  ]);
const heard = (midi: number[], tuning = STANDARD_TUNING): readonly number[] =>
  withoutOctaveGuitar([strum(...midi)], tuning)[0].midi;

describe('a guitar an octave up', () => {
  it('adds the fifth over the octave, which is left out of the grip', () => {
    const [written] = withoutOctaveGuitar([strum(45, 52, 57, 64)], STANDARD_TUNING);
    expect(written).toMatchObject({ midi: [45, 52, 57], rootPc: 9, quality: '5', confidence: 0.9 });
    expect(written.alternatives.map((a) => a.midi)).toEqual([[45, 52]]);
  });

  it('takes nothing from what the user has confirmed', () => {
    const confirmed = { ...strum(45, 52, 57, 64), confidence: 1, alternatives: [] };
    expect(withoutOctaveGuitar([confirmed], STANDARD_TUNING)).toEqual([confirmed]);
  });

  it('is not heard in what one hand has: two and three strings, barres, four strings under one finger', () => {
    for (const midi of [[], [45, 52], [45, 52, 57], [45, 52, 57, 61, 64]]) expect(heard(midi)).toEqual(midi);
    const fifths = parseTuning('D2,A2,D3,A3,D4,A4');
    expect(heard([43, 50, 55, 62], fifths)).toEqual([43, 50, 55, 62]);
    expect(heard([38, 45, 50, 57], fifths)).toEqual([38, 45, 50, 57]);
  });
});
