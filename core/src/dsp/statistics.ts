/** Small statistics over number lists; none of them changes its argument. */

/** The value below which `share` (0 to 1) of the values lie, linearly interpolated; null for an empty list. */
export function quantile(values: ArrayLike<number>, share: number): number | null {
  if (values.length === 0) return null;
  const sorted = Float64Array.from(values).sort();
  const at = share * (sorted.length - 1);
  const low = Math.floor(at);
  const high = Math.min(low + 1, sorted.length - 1);
  return sorted[low] + (at - low) * (sorted[high] - sorted[low]);
}

export function median(values: ArrayLike<number>): number | null {
  return quantile(values, 0.5);
}

/** Cosine of the angle between two vectors; 0 when one of them is silent. */
export function cosineSimilarity(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let dot = 0;
  let aa = 0;
  let bb = 0;
  for (let i = 0; i < a.length; i++) {
    dot += a[i] * b[i];
    aa += a[i] * a[i];
    bb += b[i] * b[i];
  }
  return aa > 0 && bb > 0 ? dot / Math.sqrt(aa * bb) : 0;
}
