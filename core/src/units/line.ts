/** The straight line through values at whole numbers, by least squares. */

export interface Line {
  /** Change from one index to the next. */
  readonly slope: number;
  /** The line's value at an index, which need not be whole. */
  readonly at: (index: number) => number;
}

/** Through `values[from]` to `values[to]`, both included; their slope is NaN for a single value. */
export function fitLine(values: readonly number[], from = 0, to = values.length - 1): Line {
  const count = to - from + 1;
  let [meanX, meanY] = [0, 0];
  for (let i = from; i <= to; i++) [meanX, meanY] = [meanX + i / count, meanY + values[i] / count];
  let [xy, xx] = [0, 0];
  for (let i = from; i <= to; i++) {
    xy += (i - meanX) * (values[i] - meanY);
    xx += (i - meanX) ** 2;
  }
  const slope = xy / xx;
  return { slope, at: (index) => meanY + slope * (index - meanX) };
}
