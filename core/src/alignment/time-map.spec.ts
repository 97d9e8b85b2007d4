import { describe, expect, it } from 'vitest';
import { timeMapOf } from './time-map';

/** Ten seconds alike, then twenty that only the other has, then ten alike at half the tempo. */
const RUNS = [
  [
    [1, 5],
    [11, 15],
  ],
  [
    [11.5, 36],
    [21.5, 56],
  ],
] as const;
const LENGTHS = { referenceS: 40, otherS: 60 };

describe('a map of times', () => {
  const map = timeMapOf({ runs: RUNS }, LENGTHS);

  it('goes there and back', () => {
    for (const timeS of [0, 1, 6, 11, 11.2, 11.5, 16.5, 21.5, 30, 40]) {
      expect(map.toReference(map.toOther(timeS))).toBeCloseTo(timeS, 6);
    }
    expect(map.toOther(6)).toBeCloseTo(10);
    expect(map.toOther(16.5)).toBeCloseTo(46);
  });

  it('always goes on, also where one of both has nothing', () => {
    const times = Array.from({ length: 401 }, (_, n) => map.toOther(n / 10));
    times.slice(1).forEach((time, n) => expect(time).toBeGreaterThan(times[n]));
    expect(times[0]).toBeGreaterThanOrEqual(0);
    // A moment is left over for what the other no longer plays.
    expect(times[400]).toBeLessThanOrEqual(60.01);
  });

  it('says what only one of them plays', () => {
    expect(map.onlyIn).toEqual([
      { recording: 'reference', startS: 21.5, endS: 40 },
      { recording: 'other', startS: 0, endS: 5 },
      { recording: 'other', startS: 15, endS: 36 },
    ]);
  });

  it('is the same time where the recordings are the same', () => {
    const same = timeMapOf(
      {
        runs: [
          [
            [0, 0],
            [30, 30],
          ],
        ],
      },
      { referenceS: 30, otherS: 30 },
    );
    expect(same.onlyIn).toEqual([]);
    for (const timeS of [0, 12.3, 30]) expect(same.toOther(timeS)).toBeCloseTo(timeS, 6);
  });
});
