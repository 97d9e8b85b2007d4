/**
 * Medians of windows that move by one value: the sorted window is kept, the oldest value leaves and the newest enters, at
 * the cost of one pass instead of a sort.
 */

/** Replaces one occurrence of `old` by `value` in the ascending `sorted[from, from + size)`. */
export function replaceSorted(
  sorted: Float32Array,
  from: number,
  size: number,
  old: number,
  value: number,
): void {
  const end = from + size;
  let at = from;
  while (at < end - 1 && sorted[at] < old) at++;
  if (value > old) {
    for (; at + 1 < end && sorted[at + 1] < value; at++) sorted[at] = sorted[at + 1];
  } else {
    for (; at > from && sorted[at - 1] > value; at--) sorted[at] = sorted[at - 1];
  }
  sorted[at] = value;
}

/**
 * Median of the values around each index, `radius` to either side, into `out`; before the first and after the last the
 * values are mirrored.
 */
export function movingMedian(values: Float32Array, radius: number, out: Float32Array): void {
  const last = values.length - 1;
  const at = (i: number): number => values[i < 0 ? -i : i > last ? 2 * last - i : i];
  const size = 2 * radius + 1;
  const window = Float32Array.from({ length: size }, (_, i) => at(i - radius)).sort();
  for (let k = 0; k <= last; k++) {
    out[k] = window[radius];
    replaceSorted(window, 0, size, at(k - radius), at(k + radius + 1));
  }
}
