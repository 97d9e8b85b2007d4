import { describe, expect, it } from 'vitest';
import { joinHalfRiffs } from './half-riffs';
import { markLoneParts } from './lone-parts';
import type { Part } from './part';
import { partOf } from './test-part';

const told = (parts: readonly Part[]): unknown =>
  parts.map((p) => [p.riff, p.start, p.barsPerPass, p.passes, ...(p.cutBars > 0 ? [-p.cutBars] : [])]);

/** For each bar the earliest that is called alike. */
const sameAs = (bars: string): number[] => Array.from(bars, (b) => bars.indexOf(b));

describe('half riffs', () => {
  it('are the last pass of the riff before them', () => {
    expect(told(joinHalfRiffs([partOf(0, 0, 4, 2), partOf(8, 8, 2, 1)], sameAs('abcdabcdab')))).toEqual([
      [0, 0, 4, 3, -2],
    ]);
  });

  it('stand for themselves behind another riff, also with one bar of their own', () => {
    const parts = [partOf(0, 0, 4, 1), partOf(4, 4, 2, 2), partOf(8, 8, 3, 1)];
    expect(told(joinHalfRiffs(parts, sameAs('abcdefefabx')))).toEqual([
      [0, 0, 4, 1],
      [4, 4, 2, 2],
      [0, 8, 4, 1, -1],
    ]);
  });

  it('of a half riff are half of the whole one', () => {
    const parts = [partOf(0, 0, 2, 1), partOf(2, 2, 4, 1), partOf(6, 6, 8, 1)];
    expect(told(joinHalfRiffs(parts, sameAs('ababcdabcdefgh')))).toEqual([
      [6, 0, 8, 1, -6],
      [6, 2, 8, 1, -4],
      [6, 6, 8, 1],
    ]);
  });

  it('are none where they begin otherwise, come round themselves or are longer', () => {
    for (const [parts, bars] of [
      [[partOf(0, 0, 4, 1), partOf(4, 4, 2, 1)], 'abcdbc'],
      [[partOf(0, 0, 4, 1), partOf(4, 4, 2, 2)], 'abcdabab'],
      [[partOf(0, 0, 2, 2), partOf(4, 4, 3, 1)], 'abababc'],
    ] as const) {
      expect(joinHalfRiffs(parts, sameAs(bars))).toEqual(parts);
    }
  });
});

describe('parts in which nothing comes round', () => {
  const parts = [partOf(0, 0, 2, 2), partOf(4, 4, 2, 1), partOf(6, 6, 3, 1)];
  const bars = sameAs('ababcdefg');
  const clarity = (of: number): number[] => bars.map((_, b) => (b < 4 ? 0.9 : of));
  const calm = bars.map(() => 0);

  it('are told, and are one where the band goes on the same', () => {
    const marked = markLoneParts(parts, bars, clarity(0.4), calm);
    expect(told(marked)).toEqual([
      [0, 0, 2, 2],
      [4, 4, 5, 1],
    ]);
    expect(marked.map((p) => p.returns)).toEqual([true, false]);
  });

  it('are two where it does something new', () => {
    const changes = bars.map((_, b) => (b === 6 ? 0.8 : 0));
    expect(markLoneParts(parts, bars, clarity(0.4), changes).map((p) => p.returns)).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('are riffs where they were heard clearly, or half of their bars are heard elsewhere', () => {
    expect(markLoneParts(parts, bars, clarity(0.8), calm)).toEqual(parts);
    expect(markLoneParts(parts, sameAs('ababcaabe'), clarity(0.4), calm)).toEqual(parts);
  });

  it('are written all the same where nothing comes round in the whole recording', () => {
    const once = [partOf(0, 0, 4, 1)];
    expect(markLoneParts(once, sameAs('abcd'), [0.2, 0.2, 0.2, 0.2], calm)).toEqual(once);
  });
});
