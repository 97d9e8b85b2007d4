import { describe, expect, it } from 'vitest';
import type { Part } from './part';
import { partOf } from './test-part';
import { cutAtTextureChanges } from './texture-changes';

/** A bar for each letter: `.` the guitar alone, `x` and `X` with the band, 5 and 12 dB over it, `?` a crash. */
const LEVELS: Record<string, number> = { '.': -50, x: -45, X: -38, '?': -30 };
const played = (bars: string): Float32Array[] =>
  Array.from(bars, (bar) => new Float32Array(8).fill(LEVELS[bar]));
const told = (parts: readonly Part[]): unknown =>
  parts.map((p) => [p.riff, p.start, p.passes, ...(p.cutBars > 0 ? [-p.cutBars] : [])]);

/** Bars of these riffs agree by .75. */
const cutAt = (parts: readonly Part[], spectra: readonly Float32Array[]): Part[] =>
  cutAtTextureChanges(parts, spectra, () => 0.75);

describe('a riff that goes on while the band changes', () => {
  it('is two parts, the second surer the more the band adds', () => {
    const parts = [partOf(0, 0, 4, 1), partOf(4, 4, 2, 6)];
    const clear = cutAt(parts, played('XXXX....XXXXXXXX'));
    expect(told(clear)).toEqual([
      [0, 0, 1],
      [4, 4, 2],
      [4, 8, 4],
    ]);
    expect(clear[2]).toMatchObject({ likeRiff: 0.75, startProbability: 0.95 });
    const later = [partOf(0, 0, 2, 4, { likeRiff: 0.7 })];
    expect(cutAt(later, played('....XXXX')).map((p) => p.likeRiff)).toEqual([0.7, 0.7]);
    const [, , faint] = cutAt(parts, played('XXXX....xxxxxxxx'));
    expect(faint.startProbability).toBeGreaterThan(0.6);
    expect(faint.startProbability).toBeLessThan(0.9);
  });

  it('is cut wherever the band does something else for good, and keeps its short last pass', () => {
    const parts = [partOf(0, 0, 4, 4, { cutBars: 1 })];
    expect(told(cutAt(parts, played('....XXXX.......')))).toEqual([
      [0, 0, 1],
      [0, 4, 1],
      [0, 8, 2, -1],
    ]);
  });

  it('is one where a bar alone is louder, or the band comes in in the middle of a pass', () => {
    const parts = [partOf(0, 0, 4, 3)];
    expect(cutAt(parts, played('....?.......'))).toEqual(parts);
    expect(told(cutAt([partOf(0, 0, 8, 2)], played('......XXXXXXXXXX')))).toEqual([
      [0, 0, 1],
      [0, 8, 1],
    ]);
  });
});
