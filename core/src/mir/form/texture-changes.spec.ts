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

describe('a riff that goes on while the band changes', () => {
  it('is two parts, the second surer the more the band adds', () => {
    const parts = [partOf(0, 0, 4, 1), partOf(4, 4, 2, 6)];
    const clear = cutAtTextureChanges(parts, played('XXXX....XXXXXXXX'));
    expect(told(clear)).toEqual([
      [0, 0, 1],
      [4, 4, 2],
      [4, 8, 4],
    ]);
    expect(clear[2]).toMatchObject({ likeRiff: 1, startProbability: 0.95 });
    const [, , faint] = cutAtTextureChanges(parts, played('XXXX....xxxxxxxx'));
    expect(faint.startProbability).toBeGreaterThan(0.6);
    expect(faint.startProbability).toBeLessThan(0.9);
  });

  it('is cut wherever the band does something else for good, and keeps its short last pass', () => {
    const parts = [partOf(0, 0, 4, 4, { cutBars: 1 })];
    expect(told(cutAtTextureChanges(parts, played('....XXXX.......')))).toEqual([
      [0, 0, 1],
      [0, 4, 1],
      [0, 8, 2, -1],
    ]);
  });

  it('is one where a bar alone is louder, or the band comes in in the middle of a pass', () => {
    const parts = [partOf(0, 0, 4, 3)];
    expect(cutAtTextureChanges(parts, played('....?.......'))).toEqual(parts);
    expect(told(cutAtTextureChanges([partOf(0, 0, 8, 2)], played('......XXXXXXXXXX')))).toEqual([
      [0, 0, 1],
      [0, 8, 1],
    ]);
  });
});
