import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { warpPath } from './warp-path';

const WEIGHTS = { diagonal: 1, straight: 1 };

describe('a way through costs', () => {
  it('costs nothing along a sequence and itself, and never goes back', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 2, maxLength: 30 }), (values) => {
        const band = { first: values.map(() => 0), width: values.length };
        const { cells, cost } = warpPath(band, (i, j) => Math.abs(values[i] - values[j]), WEIGHTS, false);
        expect(cost).toBe(0);
        cells.slice(1).forEach(([row, column], n) => {
          expect(row - cells[n][0]).toBeGreaterThanOrEqual(0);
          expect(column - cells[n][1]).toBeGreaterThanOrEqual(0);
        });
      }),
    );
  });

  it('stays within a band that goes on', () => {
    const first = [0, 1, 2, 3, 4];
    const { cells } = warpPath({ first, width: 3 }, () => 1, WEIGHTS, true);
    cells.forEach(([row, column]) => {
      expect(column).toBeGreaterThanOrEqual(first[row]);
      expect(column).toBeLessThan(first[row] + 3);
    });
    expect(cells.at(-1)?.[0]).toBe(4);
  });

  it('begins and ends where that is cheapest when its ends are free', () => {
    const cost = (row: number, column: number): number => Math.abs(column - row - 2);
    const { cells, cost: total } = warpPath({ first: [0, 0, 0], width: 6 }, cost, WEIGHTS, true);
    expect(total).toBe(0);
    expect(cells).toEqual([
      [0, 2],
      [1, 3],
      [2, 4],
    ]);
  });
});
