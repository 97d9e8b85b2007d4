import { describe, expect, it } from 'vitest';
import type { BarContent } from './bar-contents';
import { barLikeness } from './bar-likeness';
import { segmentBars, type Segmentation } from './segmentation';
import { chordBar } from './test-part';

const A = [chordBar(0), chordBar(3)];
const B = [chordBar(5, 0.25), chordBar(9, 0.125)];
const four = [chordBar(1, 0.15), chordBar(6, 0.4), chordBar(8, 0.2), chordBar(2, 0.35)];
const song = (...parts: (readonly BarContent[])[]): BarContent[] => parts.flat();
const cut = (bars: readonly BarContent[], changes: readonly number[]): Segmentation =>
  segmentBars(barLikeness(bars, [], 0), changes);
const starts = ({ segments }: Segmentation): number[] => segments.map((s) => s.start);
const still = (bars: readonly BarContent[]): number[] => bars.map(() => 0);

describe('a song cut into segments', () => {
  it('begins a segment where another riff begins, and is sure of it', () => {
    const bars = song(A, A, A, A, B, B, B, B);
    const { segments, cutProbability } = cut(bars, still(bars));
    expect(segments.map((s) => s.start)).toEqual([0, 8]);
    expect(cutProbability[8]).toBeGreaterThan(0.9);
    expect(cutProbability[4]).toBeLessThan(0.4);
  });

  it('is certain of both ends, and has no probability outside of 0 to 1', () => {
    const bars = song(A, B, A, A, B);
    const { cutProbability } = cut(bars, still(bars));
    expect(cutProbability[0]).toBeCloseTo(1);
    expect(cutProbability[bars.length]).toBeCloseTo(1);
    for (const p of cutProbability) expect(p).toBeGreaterThanOrEqual(0);
    for (const p of cutProbability) expect(p).toBeLessThanOrEqual(1 + 1e-9);
  });

  it('doubts a cut beside a bar that belongs to neither side', () => {
    const odd = [chordBar(7, 0.0625)];
    const clear = song(A, A, A, A, B, B, B, B);
    const unclear = song(A, A, A, A, odd, B, B, B, B);
    const sureness = (bars: BarContent[]): number =>
      Math.max(...[8, 9].map((b) => cut(bars, still(bars)).cutProbability[b]));
    expect(sureness(unclear)).toBeLessThan(sureness(clear));
  });

  it('leaves the last bar of a riff with it that ends otherwise the last time, also where drums lead up to it', () => {
    const fill = [chordBar(7, 0.0625)];
    const bars = song(A, A, A, A.slice(0, 1), fill, four, A, A, A.slice(0, 1), fill);
    const changes = still(bars);
    changes[6] = 0.5;
    expect(starts(cut(bars, changes))).toEqual([0, 8, 12]);
    // Where the bars before it differ too it is another riff.
    const other = song(A, A, A, fill, fill, four, A, A);
    expect(starts(cut(other, still(other)))).toContain(6);
  });

  it('keeps four bars together rather than six where the band does something else behind them', () => {
    const bars = song(A, A, A, A, four, [chordBar(10, 0.0625), chordBar(11, 0.3)]);
    const changes = still(bars);
    changes[12] = 1;
    expect(starts(cut(bars, changes))).toEqual([0, 8, 12]);
  });

  it('counts in fours where nothing else says where a part ends', () => {
    const unlike = (bars: number): Segmentation => segmentBars(() => 0, new Array<number>(bars).fill(0));
    for (const bars of [7, 9, 10, 11]) {
      const starts = unlike(bars).segments.map((s) => s.start);
      expect(starts.filter((start) => start % 4 !== 0)).toEqual([]);
    }
  });

  it('is surer where the texture changes too', () => {
    const bars = song(A, A, B, B);
    const changes = still(bars);
    const before = cut(bars, changes).cutProbability[4];
    changes[4] = 1;
    expect(cut(bars, changes).cutProbability[4]).toBeGreaterThan(before);
  });
});
