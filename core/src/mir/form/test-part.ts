/** Parts for tests. */
import type { Part } from './part';

export function partOf(
  riff: number,
  start: number,
  barsPerPass: number,
  passes: number,
  marks: Partial<Part> = {},
): Part {
  return { riff, start, barsPerPass, passes, cutBars: 0, shift: 0, returns: true, likeRiff: null, ...marks };
}
