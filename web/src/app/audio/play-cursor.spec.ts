import { describe, expect, it } from 'vitest';
import { loopRounds, positionAt, type Segment } from './play-cursor';

const SEGMENT: Segment = { contextS: 10, inputS: 4, speed: 0.5, loop: { startS: 3, endS: 5 } };

describe('play cursor', () => {
  it.each([
    [9, 4],
    [10, 4],
    [11, 4.5],
    [12, 3],
    [13, 3.5],
    [16, 3],
  ])('at device time %f is at %f', (now, place) => {
    expect(positionAt(SEGMENT, now)).toBeCloseTo(place, 9);
  });

  it('runs on without a loop, and into a loop that lies ahead', () => {
    expect(positionAt({ ...SEGMENT, loop: null }, 20)).toBe(9);
    expect(positionAt({ ...SEGMENT, inputS: 1 }, 12)).toBe(2);
  });

  it('counts completed rounds', () => {
    expect([10, 12, 16].map((now) => loopRounds(SEGMENT, now))).toEqual([0, 1, 2]);
    expect(loopRounds({ ...SEGMENT, loop: null }, 99)).toBe(0);
  });
});
