import { describe, expect, it } from 'vitest';
import { warpPath } from '../../src/alignment/warp-path';

/**
 * Müller, "Fundamentals of Music Processing" (Springer 2015), section 3.2, and its notebook on dynamic time warping: two sequences of
 * numbers with the absolute difference as cost. Values from memory, worked through once more by hand.
 */
describe('dynamic time warping', () => {
  const X = [1, 3, 9, 2, 1];
  const Y = [2, 0, 0, 8, 7, 2];
  const cost = (row: number, column: number): number => Math.abs(X[row] - Y[column]);
  const everywhere = { first: X.map(() => 0), width: Y.length };

  it('finds the way and the cost of the textbook', () => {
    const { cells, cost: total } = warpPath(everywhere, cost, { diagonal: 1, straight: 1 }, false);
    expect(total).toBe(9);
    expect(cells).toEqual([
      [0, 0],
      [0, 1],
      [1, 2],
      [2, 3],
      [2, 4],
      [3, 5],
      [4, 5],
    ]);
  });
});
