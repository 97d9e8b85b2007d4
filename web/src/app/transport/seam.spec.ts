import { describe, expect, it } from 'vitest';
import { positionAt, type Segment } from './play-cursor';
import { seamFrom, upcomingAt } from './seam';

const SEGMENT: Segment = { contextS: 10, inputS: 4, speed: 0.5, loop: { startS: 3, endS: 5 } };

describe('the seam of a loop', () => {
  it.each([
    [0, 12],
    [12, 12],
    [12.001, 16],
    [29, 32],
  ])('from %f on is at %f', (fromS, seamS) => {
    expect(seamFrom(SEGMENT, fromS)).toBeCloseTo(seamS, 9);
    expect(positionAt(SEGMENT, seamS)).toBeCloseTo(3, 9);
  });

  it('is not there without a loop, nor behind one', () => {
    expect(seamFrom({ ...SEGMENT, loop: null }, 0)).toBeNull();
    expect(seamFrom({ ...SEGMENT, inputS: 6 }, 0)).toBeNull();
  });

  it('begins what comes next, after a rest', () => {
    const { segment } = upcomingAt(12, { loop: { startS: 3, endS: 4 }, speed: 0.6, restS: 2 });
    expect([13, 14, 15].map((at) => positionAt(segment, at))).toEqual([3, 3, 3.6]);
  });
});
