/**
 * Peaks of a recording's outline in levels, each a quarter as long as the one before: the loudest of any part costs as many
 * looks as there are levels, however long the part is.
 */

/** The outline itself first; the last level has one value. */
export type PeakPyramid = readonly Uint8Array[];

const FACTOR = 4;

export function buildPeakPyramid(peaks: Uint8Array): PeakPyramid {
  const levels = [peaks];
  while (levels[levels.length - 1].length > 1) {
    const below = levels[levels.length - 1];
    const level = new Uint8Array(Math.ceil(below.length / FACTOR));
    for (let i = 0; i < below.length; i++) {
      const at = Math.floor(i / FACTOR);
      if (below[i] > level[at]) level[at] = below[i];
    }
    levels.push(level);
  }
  return levels;
}

/** The largest peak in [from, to) of the outline; 0 for nothing. */
export function loudestPeak(pyramid: PeakPyramid, from: number, to: number): number {
  let [low, high] = [Math.max(0, from), Math.min(pyramid[0]?.length ?? 0, to)];
  let peak = 0;
  // Ends that do not fill a group are looked at here, whole groups one level up.
  for (const level of pyramid) {
    if (low >= high) break;
    while (low < high && low % FACTOR !== 0) peak = Math.max(peak, level[low++]);
    while (high > low && high % FACTOR !== 0) peak = Math.max(peak, level[--high]);
    low /= FACTOR;
    high /= FACTOR;
  }
  return peak;
}
