/** Where the texture of a recording changes at a bar line: drums come in, the band stops. */
import type { OnsetStrength, Region } from './onset-strength';

/** Bars on each side that textures are compared over. */
const TEXTURE_BARS = 2;
const REGIONS: readonly Region[] = ['low', 'body', 'edge'];

/** How much the texture changes at each bar line, 0 to 1. */
export function textureChanges(
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
      const some = levels.slice(Math.max(0, from), Math.max(0, from) + TEXTURE_BARS);
      return some.reduce((sum, l) => sum + l[r], 0) / Math.max(1, some.length);
    };
    if (b < TEXTURE_BARS || b + TEXTURE_BARS > levels.length) return 0;
    const change = REGIONS.map((_r, r) => Math.abs(mean(b, r) - mean(b - TEXTURE_BARS, r)));
    // A doubling of attacks in one region is a clear change.
    return Math.min(1, Math.max(...change) / Math.LN2);
  });
}
