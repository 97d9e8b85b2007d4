import { describe, expect, it } from 'vitest';
import { findSameBars } from './same-bars';
import { partOf } from './test-part';
import { segmentLikeness } from './same-riff';

/** Bars are called by letters; those of one letter sound the same. */
const sounding =
  (bars: string) =>
  (earlier: number, later: number, shift: number): number =>
    shift === 0 && bars[earlier] === bars[later] ? 1 : 0;

describe('the same bars', () => {
  it('are found within a riff, across riffs, and where a riff comes back without its end', () => {
    const bars = 'abacabacdbdbab';
    const same = findSameBars(
      sounding(bars),
      [partOf(0, 0, 4, 2), partOf(8, 8, 2, 2), partOf(12, 12, 2, 1)],
      14,
    );
    expect(same).toEqual([0, 1, 0, 3, 0, 1, 0, 3, 8, 1, 8, 1, 0, 1]);
  });

  it('takes the passes of a riff together, so that one that was heard otherwise does not fall out', () => {
    expect(findSameBars(sounding('abxbab'), [partOf(0, 0, 2, 3)], 6)).toEqual([0, 1, 0, 1, 0, 1]);
  });

  it('leaves bars outside of all parts alone', () => {
    expect(findSameBars(sounding('aaa'), [partOf(0, 0, 1, 2)], 3)).toEqual([0, 0, 2]);
    expect(findSameBars(sounding(''), [], 2)).toEqual([0, 1]);
  });
});

describe('how alike two segments are', () => {
  const segment = (start: number, barsPerPass: number, passes: number) => ({ start, barsPerPass, passes });

  it('is the mean over the same bars of all passes', () => {
    const bars = 'ababax';
    expect(segmentLikeness(sounding(bars), segment(0, 2, 2), segment(4, 2, 1), 0)).toBe(0.5);
    expect(segmentLikeness(sounding(bars), segment(0, 2, 1), segment(2, 2, 1), 0)).toBe(1);
  });

  it('compares a pass of four bars with both of two', () => {
    expect(segmentLikeness(sounding('ababab'), segment(0, 2, 1), segment(2, 4, 1), 0)).toBe(1);
    expect(segmentLikeness(sounding('ababxx'), segment(0, 2, 1), segment(2, 4, 1), 0)).toBe(0.5);
  });

  it('is that of the longer pass where two halves that are nearly alike were taken for two passes', () => {
    const [halves, whole] = [segment(0, 2, 4), segment(8, 4, 1)];
    // The one bar that differs counts half over passes of two, and nothing over passes of four.
    expect(segmentLikeness(sounding('abacabacabac'), halves, whole, 0)).toBeCloseTo(0.95, 10);
    expect(segmentLikeness(sounding('abababababac'), halves, whole, 0)).toBe(0.75);
    // Too short for a pass of four.
    expect(segmentLikeness(sounding('abxxxxxxabac'), segment(0, 2, 1), whole, 0)).toBe(0.75);
  });

  it('is none where one length is no multiple of the other', () => {
    expect(segmentLikeness(sounding('aaaaa'), segment(0, 2, 1), segment(2, 3, 1), 0)).toBe(0);
  });
});
