import { describe, expect, it } from 'vitest';
import type { BarContent } from './bar-contents';
import type { BarChroma } from './bar-chroma';
import { barLikeness } from './bar-likeness';

/** Two strums; another offset is another rhythm. */
const bar = (rootPc: number, offset = 0): BarContent =>
  [0, 0.5].map((at) => ({ at: at + offset, bass: 40 + rootPc, rootPc, palmMuted: false }));

/** One note through the whole bar. */
function chroma(pitchClass: number): BarChroma {
  return Float32Array.from({ length: 16 * 12 }, (_, i) => (i % 12 === pitchClass ? 1 : 0));
}

describe('likeness of bars', () => {
  it('is that of the strums where they come back as they were, whatever else sounds', () => {
    const contents = [bar(0), bar(5, 0.25), bar(0), bar(5, 0.25)];
    const likeness = barLikeness(contents, [1, 1, 1, 1].map(chroma));
    expect(likeness(0, 2, 0)).toBe(1);
    expect(likeness(0, 1, 0)).toBe(0);
  });

  it('is mostly that of the sound where each bar is heard otherwise', () => {
    const contents = [bar(0), bar(5, 0.25), bar(3, 0.125), bar(8, 0.0625)];
    const harmony = [chroma(1), chroma(4), chroma(1), chroma(6)];
    const likeness = barLikeness(contents, harmony);
    expect(likeness(0, 2, 0)).toBeCloseTo(0.8, 6);
    expect(likeness(0, 1, 0)).toBe(0);
    // Three semitones up the first sounds like the second.
    expect(likeness(0, 1, 3)).toBeCloseTo(0.8, 6);
    expect(barLikeness(contents, null)(0, 2, 0)).toBe(0);
  });

  it('takes bars without strums as they are', () => {
    expect(barLikeness([[], []], [chroma(1), chroma(1)])(0, 1, 0)).toBe(1);
  });
});
