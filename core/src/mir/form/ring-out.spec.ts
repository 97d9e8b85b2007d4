import { describe, expect, it } from 'vitest';
import { ringingBars, ringOut } from './ring-out';
import { partOf } from './test-part';

describe('a last chord that rings on', () => {
  const downbeats = [0, 2, 4, 6, 8];

  it('lasts through the bars of which half still sounds', () => {
    expect(ringingBars(3.9, downbeats, 1, 10)).toBe(0);
    expect(ringingBars(4.9, downbeats, 1, 10)).toBe(0);
    expect(ringingBars(5.1, downbeats, 1, 10)).toBe(1);
    expect(ringingBars(9.5, downbeats, 1, 10)).toBe(3);
  });

  it('makes the last part longer where it is played once, and leaves a riff as long as it is', () => {
    const end = partOf(8, 8, 1, 1);
    expect(ringOut([partOf(0, 0, 4, 2), end], 1)).toEqual([partOf(0, 0, 4, 2), { ...end, barsPerPass: 2 }]);
    for (const last of [partOf(8, 8, 2, 2), partOf(0, 8, 4, 1), partOf(8, 8, 2, 1, { cutBars: 1 })]) {
      const parts = [partOf(0, 0, 4, 2), last];
      expect(ringOut(parts, 1)).toEqual(parts);
    }
  });
});
