/** Small statistics over number lists; none of them changes its argument. */
import quickselect from 'quickselect';

/** The value below which `share` (0 to 1) of the values lie, linearly interpolated; null for an empty list. */
export function quantile(values: ArrayLike<number>, share: number): number | null {
  if (values.length === 0) return null;
  const parted = Float64Array.from(values);
  const at = share * (parted.length - 1);
  const low = Math.floor(at);
  // Smaller values lie to the left of `low`, greater ones to the right; the next one is the least of those.
  quickselect(parted as unknown as number[], low);
  if (at === low) return parted[low];
  let next = Infinity;
  for (let i = low + 1; i < parted.length; i++) if (parted[i] < next) next = parted[i];
  return parted[low] + (at - low) * (next - parted[low]);
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
