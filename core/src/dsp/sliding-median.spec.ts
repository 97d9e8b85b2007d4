import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { movingMedian, replaceSorted } from './sliding-median';
import { median } from './statistics';

const values = fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 9, maxLength: 40 });

describe('sliding medians', () => {
  it('are those of each window sorted by itself', () => {
    fc.assert(
      fc.property(values, (list) => {
        const input = Float32Array.from(list);
        const out = new Float32Array(input.length);
        movingMedian(input, 3, out);
        for (let k = 3; k < input.length - 3; k++) expect(out[k]).toBe(median(input.slice(k - 3, k + 4)));
      }),
    );
  });

  it('keep the window sorted whatever leaves and enters', () => {
    fc.assert(
      fc.property(values, fc.nat(), fc.integer({ min: -60, max: 60 }), (list, which, value) => {
        const sorted = Float32Array.from(list).sort();
        const old = sorted[which % sorted.length];
        const wanted = [...sorted];
        wanted[which % sorted.length] = value;
        replaceSorted(sorted, 0, sorted.length, old, value);
        expect([...sorted]).toEqual(wanted.sort((a, b) => a - b));
      }),
    );
  });

  it('mirror the ends', () => {
    const out = new Float32Array(4);
    movingMedian(Float32Array.from([9, 1, 2, 3]), 1, out);
    expect([...out]).toEqual([1, 2, 2, 2]);
  });
});
