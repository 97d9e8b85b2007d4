/** Parts, and bars of one chord, for tests. */
import type { BarChroma } from './bar-chroma';
import type { BarContent } from './bar-contents';
import type { Part } from './part';

/** Two strums; another offset is another rhythm. */
export const chordBar = (rootPc: number, offset = 0): BarContent =>
  [0, 0.5].map((at) => ({ at: at + offset, bass: 40 + rootPc, rootPc, palmMuted: false }));

/** One note through the whole bar. */
export const chromaOf = (pitchClass: number): BarChroma =>
  Float32Array.from({ length: 16 * 12 }, (_, i) => (i % 12 === pitchClass ? 1 : 0));

export function partOf(
  riff: number,
  start: number,
  barsPerPass: number,
  passes: number,
  marks: Partial<Part> = {},
): Part {
  return { riff, start, barsPerPass, passes, cutBars: 0, shift: 0, returns: true, likeRiff: null, ...marks };
}
