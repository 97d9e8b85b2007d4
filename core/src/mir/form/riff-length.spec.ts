import { describe, expect, it } from 'vitest';
import type { BarLikeness } from './bar-likeness';
import type { Part } from './part';
import { toRiffLengths } from './riff-length';
import { partOf } from './test-part';

/** Bars called alike are the same; others are as alike as bars of one riff that share their mutes and their rhythm. */
const called =
  (bars: string, others = 0.65): BarLikeness =>
  (earlier, later, shift) =>
    shift === 0 && bars[earlier] === bars[later] ? 1 : others;
const lengths = (likeness: BarLikeness, parts: readonly Part[]): unknown =>
  toRiffLengths(likeness, parts).map((p) => [p.barsPerPass, p.passes]);

describe('the length of a riff', () => {
  it('is that after which its bars come back, also where one section alone was shorter to say in passes of one bar', () => {
    const verses = [partOf(0, 0, 1, 4), partOf(4, 4, 2, 2), partOf(0, 8, 1, 4)];
    expect(lengths(called('abcdeeeeabcd'), verses)).toEqual([
      [4, 1],
      [1, 4],
      [4, 1],
    ]);
  });

  it('is not longer than what comes back', () => {
    expect(lengths(called('abababab'), [partOf(0, 0, 4, 2)])).toEqual([[2, 4]]);
    expect(lengths(called('aaaaaaab'), [partOf(0, 0, 8, 1)])).toEqual([[1, 8]]);
  });

  it('is one, at whatever height it is played', () => {
    const likeness: BarLikeness = (earlier, later, shift) =>
      'abcdabcd'[earlier] === 'abcdabcd'[later % 8] && shift === (later < 8 ? 0 : 2) ? 1 : 0.2;
    expect(lengths(likeness, [partOf(0, 0, 8, 1), partOf(0, 8, 2, 4, { shift: 2 })])).toEqual([
      [4, 2],
      [4, 2],
    ]);
  });

  it('is half of it where half of it is played', () => {
    expect(lengths(called('abcdefghabcd'), [partOf(0, 0, 8, 1), partOf(0, 8, 4, 1)])).toEqual([
      [4, 2],
      [4, 1],
    ]);
  });

  it('leaves what is called the same and heard a little otherwise in short passes', () => {
    expect(lengths(called('abcdefgh', 0.9), [partOf(0, 0, 2, 4)])).toEqual([[1, 8]]);
  });
});
