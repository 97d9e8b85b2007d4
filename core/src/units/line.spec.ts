import { describe, expect, it } from 'vitest';
import { fitLine } from './line';

describe('a line through values', () => {
  it('is the values where they lie on one', () => {
    const { slope, at } = fitLine([3, 5, 7, 9]);
    expect(slope).toBeCloseTo(2, 12);
    expect([at(0), at(1.5), at(-2)]).toEqual([3, 6, -1]);
  });

  it('lies between values that scatter, and takes only the part that is asked for', () => {
    // Least squares by hand: means 1 and 2, slope ((-1)(-1) + 0 + 1 · 2) / 2 − shift of the mean.
    const { slope, at } = fitLine([1, 1, 4]);
    expect(slope).toBeCloseTo(1.5, 12);
    expect(at(1)).toBeCloseTo(2, 12);
    expect(fitLine([100, 1, 2, 3, 100], 1, 3).at(4)).toBeCloseTo(4, 12);
  });
});
