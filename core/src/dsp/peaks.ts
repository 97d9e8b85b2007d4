/** Peaks of sampled curves. */

/**
 * Refines the place of a local maximum by the parabola through three neighbouring values
 * (Smith and Serra 1987, "PARSHL", eq. 3). Returns the offset from the middle sample in (-0.5, 0.5)
 * and the height there.
 */
export function parabolicPeak(
  left: number,
  middle: number,
  right: number,
): { offset: number; value: number } {
  const curvature = left - 2 * middle + right;
  if (curvature === 0) return { offset: 0, value: middle };
  const offset = (0.5 * (left - right)) / curvature;
  return { offset, value: middle - 0.25 * (left - right) * offset };
}

export interface PickPeaksOptions {
  /** A peak is the largest value within this many frames before and after. */
  readonly maxRadius: number;
  /** The mean is taken over this many frames before and after. */
  readonly meanRadius: number;
  /** How far above that mean a peak must stand. */
  readonly delta: number;
}

/** Indices of local maxima that stand above their surroundings (Böck, Krebs, Schedl 2012, eq. 4 to 6, offline form). */
export function pickPeaks(curve: Float32Array, { maxRadius, meanRadius, delta }: PickPeaksOptions): number[] {
  const sums = new Float64Array(curve.length + 1);
  for (let i = 0; i < curve.length; i++) sums[i + 1] = sums[i] + curve[i];
  const peaks: number[] = [];
  for (let i = 0; i < curve.length; i++) {
    let isMax = true;
    for (let j = Math.max(0, i - maxRadius); j <= Math.min(curve.length - 1, i + maxRadius) && isMax; j++) {
      isMax = curve[j] < curve[i] || (curve[j] === curve[i] && j >= i);
    }
    if (!isMax) continue;
    const from = Math.max(0, i - meanRadius);
    const to = Math.min(curve.length, i + meanRadius + 1);
    if (curve[i] >= (sums[to] - sums[from]) / (to - from) + delta) peaks.push(i);
  }
  return peaks;
}
