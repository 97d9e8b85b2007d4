import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { buildPeakPyramid, loudestPeak } from './peak-pyramid';

describe('peak pyramid', () => {
  it('has levels of a quarter down to one value', () => {
    expect(buildPeakPyramid(new Uint8Array(100)).map((l) => l.length)).toEqual([100, 25, 7, 2, 1]);
    expect(buildPeakPyramid(new Uint8Array())).toHaveLength(1);
  });

  it('finds the loudest of any part, as looking at each value does', () => {
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 1, maxLength: 300 }),
        fc.nat(310),
        fc.nat(310),
        (peaks, a, b) => {
          const [from, to] = [Math.min(a, b), Math.max(a, b)];
          const plain = peaks.slice(from, to).reduce((most, v) => Math.max(most, v), 0);
          expect(loudestPeak(buildPeakPyramid(peaks), from, to)).toBe(plain);
        },
      ),
      { seed: 8 },
    );
  });
});
