import { describe, expect, it } from 'vitest';
import { rootProbability } from './root-probability';

/** A, with its fifth and octave. */
const SINGLE = [45];
const POWER = [45, 52, 57];

describe('how sure the root is', () => {
  const doubtful = {
    rootPc: 9,
    confidence: 0.45,
    alternatives: [
      { midi: SINGLE, probability: 0.4 },
      { midi: [52, 57], probability: 0.1 },
    ],
  };

  it('adds up what may stand on it', () => {
    // The upper fifth and octave, E and A, are A5 with the fifth lowest.
    expect(rootProbability(doubtful)).toBeCloseTo(0.45 + 0.9 * 0.5, 6);
    const elsewhere = [{ midi: [44, 51], probability: 0.5 }];
    expect(rootProbability({ ...doubtful, alternatives: elsewhere })).toBeCloseTo(0.45, 6);
  });

  it('is that of the chord where nothing else may sound', () => {
    expect(rootProbability({ rootPc: 9, confidence: 0.8, alternatives: [] })).toBe(0.8);
    expect(rootProbability({ rootPc: null, confidence: 0.7, alternatives: [] })).toBe(0.7);
  });

  it('never says more than certain', () => {
    const all = [{ midi: POWER, probability: 1 }];
    expect(rootProbability({ rootPc: 9, confidence: 0.9, alternatives: all })).toBe(1);
  });
});
