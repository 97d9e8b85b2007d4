import { describe, expect, it } from 'vitest';
import { loopRounds, positionAt, reachedBetween, type Segment } from './play-cursor';

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

describe('beats that are reached', () => {
  const beats = [0, 1, 2, 3, 4, 5, 6];
  const times = (segment: Segment, fromS: number, toS: number) =>
    reachedBetween(segment, beats, fromS, toS).map(({ atS, index }) => [atS, index]);

  it.each([0.25, 0.5, 0.75, 1, 1.5])('lie where playback is at them, at speed %f', (speed) => {
    const segment: Segment = { contextS: 2, inputS: 0.4, speed, loop: null };
    const reached = reachedBetween(segment, beats, 0, 60);
    expect(reached.map((r) => r.index)).toEqual([1, 2, 3, 4, 5, 6]);
    for (const { atS, index } of reached) expect(positionAt(segment, atS)).toBeCloseTo(beats[index], 9);
  });

  it('come again in every round of a loop', () => {
    expect(times(SEGMENT, 10, 18)).toEqual([
      [10, 4],
      [12, 3],
      [14, 4],
      [16, 3],
    ]);
  });

  it('before the loop are reached once', () => {
    expect(times({ ...SEGMENT, inputS: 1.5, speed: 1 }, 0, 16)).toEqual([
      [10.5, 2],
      [11.5, 3],
      [12.5, 4],
      [13.5, 3],
      [14.5, 4],
      [15.5, 3],
    ]);
  });

  it('are asked for piece by piece without a gap or a double', () => {
    const whole = times(SEGMENT, 10, 20);
    const pieces = Array.from({ length: 40 }, (_, i) => times(SEGMENT, 10 + i / 4, 10.25 + i / 4)).flat();
    expect(pieces).toEqual(whole);
  });
});
