/**
 * Probabilities and their logarithms. Natural logarithms throughout; sums are taken against the largest term, so that
 * nothing overflows (log-sum-exp).
 */

/** Logits to probabilities that sum to 1, in place. */
export function softmax(values: Float32Array): void {
  let top = -Infinity;
  for (const v of values) if (v > top) top = v;
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] = Math.exp(values[i] - top);
  for (let i = 0; i < values.length; i++) values[i] /= sum;
}

/** log(e^a + e^b); -Infinity stands for probability 0. */
export function logAdd(a: number, b: number): number {
  const top = Math.max(a, b);
  return top === -Infinity ? top : top + Math.log(Math.exp(a - top) + Math.exp(b - top));
}

/** log(p / (1 - p)); `least` is added to both shares, so that 0 and 1 stay finite. */
export function logOdds(p: number, least: number): number {
  return Math.log((p + least) / (1 - p + least));
}

/** The probability with these log-odds: the inverse of {@link logOdds}. */
export function logistic(odds: number): number {
  return 1 / (1 + Math.exp(-odds));
}
