/** Where the onsets of a recording change at a bar line: drums come in, the band stops. Novelty of the onset strength by region. */
import type { OnsetStrength, Region } from '../onsets/onset-strength';

/** Bars on each side that onsets are compared over. */
const NOVELTY_BARS = 2;
const REGIONS: readonly Region[] = ['low', 'body', 'edge'];

/** How much the onsets change at each bar line, 0 to 1. */
export function onsetNovelty(
  strength: OnsetStrength | null,
  downbeatsS: readonly number[],
  durationS: number,
): number[] {
  if (!strength) return downbeatsS.map(() => 0);
  const { frameRate, curves } = strength;
  const levels = downbeatsS.map((startS, b) => {
    const from = Math.round(startS * frameRate);
    const to = Math.round((downbeatsS[b + 1] ?? durationS) * frameRate);
    return REGIONS.map((region) => {
      let sum = 1e-6;
      for (let n = from; n < to; n++) sum += curves[region][n] ?? 0;
      return Math.log(sum / Math.max(1, to - from));
    });
  });
  return levels.map((_, b) => {
    const mean = (from: number, r: number): number => {
      const some = levels.slice(Math.max(0, from), Math.max(0, from) + NOVELTY_BARS);
      return some.reduce((sum, l) => sum + l[r], 0) / Math.max(1, some.length);
    };
    if (b < NOVELTY_BARS || b + NOVELTY_BARS > levels.length) return 0;
    const change = REGIONS.map((_r, r) => Math.abs(mean(b, r) - mean(b - NOVELTY_BARS, r)));
    // A doubling of attacks in one region is a clear change.
    return Math.min(1, Math.max(...change) / Math.LN2);
  });
}
