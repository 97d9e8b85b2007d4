import { describe, expect, it } from 'vitest';
import { barLikeness } from './bar-likeness';
import { chordBar, chromaOf } from './test-part';

describe('likeness of bars', () => {
  it('is that of the strums, or that of the sound by its share', () => {
    const contents = [chordBar(0), chordBar(5, 0.25), chordBar(3, 0.125), chordBar(8, 0.0625)];
    const harmony = [1, 4, 1, 6].map(chromaOf);
    const likeness = barLikeness(contents, harmony, 0.8);
    expect(likeness(0, 2, 0)).toBeCloseTo(0.8, 6);
    expect(likeness(0, 1, 0)).toBe(0);
    // Three semitones up the first sounds like the second.
    expect(likeness(0, 1, 3)).toBeCloseTo(0.8, 6);
    expect(barLikeness(contents, harmony, 0)(0, 2, 0)).toBe(0);
  });

  it('takes bars without strums as they are', () => {
    expect(barLikeness([[], []], [chromaOf(1), chromaOf(1)], 0)(0, 1, 0)).toBe(1);
  });
});
