/**
 * Small feed-forward networks: dense layers with rectifiers between them. Weights are whole numbers from -127 to 127
 * with a scale per output (symmetric quantisation), so that they stay readable and small; `training/` makes them.
 */
export interface LayerWeights {
  readonly inputs: number;
  readonly outputs: number;
  /** `outputs` rows of `inputs`, row by row. */
  readonly weights: readonly number[];
  /** Of each row: weight = whole number * scale. */
  readonly scales: readonly number[];
  readonly biases: readonly number[];
}

export interface DenseLayer {
  readonly inputs: number;
  readonly outputs: number;
  /** Row by row. */
  readonly weights: Float32Array;
  readonly biases: Float32Array;
}

/** Throws a RangeError when the counts do not fit each other, or the features that the layer is to read. */
export function readLayer(
  { inputs, outputs, weights, scales, biases }: LayerWeights,
  wantedInputs = inputs,
): DenseLayer {
  if (inputs !== wantedInputs) {
    throw new RangeError(`the layer must read ${wantedInputs} features, but was trained on ${inputs}`);
  }
  if (weights.length !== inputs * outputs || scales.length !== outputs || biases.length !== outputs) {
    throw new RangeError(
      `a layer of ${inputs} by ${outputs} must hold ${inputs * outputs} weights, but has ${weights.length}`,
    );
  }
  return {
    inputs,
    outputs,
    weights: Float32Array.from(weights, (w, i) => w * scales[Math.floor(i / inputs)]),
    biases: Float32Array.from(biases),
  };
}

/**
 * `rows` inputs, one after the other, to as many outputs: `out[r][o] = bias[o] + sum of weight[o][i] * input[r][i]`; with
 * `isRectified` negative results become 0. Rows in fours are the fast way: they share every weight that is loaded, and two
 * outputs every input, which is three times as fast as one by one.
 */
export function applyLayer(
  { inputs, outputs, weights, biases }: DenseLayer,
  input: Float32Array,
  rows: number,
  out: Float32Array,
  isRectified: boolean,
): void {
  const keep = (sum: number): number => (isRectified && sum < 0 ? 0 : sum);
  let r = 0;
  for (; r + 4 <= rows; r += 4) {
    const [x0, x1, x2, x3] = [r * inputs, (r + 1) * inputs, (r + 2) * inputs, (r + 3) * inputs];
    for (let o = 0; o < outputs; o += 2) {
      // An odd last output is computed twice.
      const p = Math.min(o + 1, outputs - 1);
      let [s0, s1, s2, s3] = [biases[o], biases[o], biases[o], biases[o]];
      let [t0, t1, t2, t3] = [biases[p], biases[p], biases[p], biases[p]];
      const [row, next] = [o * inputs, p * inputs];
      for (let i = 0; i < inputs; i++) {
        const v = weights[row + i];
        const u = weights[next + i];
        const a0 = input[x0 + i];
        const a1 = input[x1 + i];
        const a2 = input[x2 + i];
        const a3 = input[x3 + i];
        s0 += v * a0;
        s1 += v * a1;
        s2 += v * a2;
        s3 += v * a3;
        t0 += u * a0;
        t1 += u * a1;
        t2 += u * a2;
        t3 += u * a3;
      }
      const at = r * outputs;
      out[at + o] = keep(s0);
      out[at + outputs + o] = keep(s1);
      out[at + 2 * outputs + o] = keep(s2);
      out[at + 3 * outputs + o] = keep(s3);
      out[at + p] = keep(t0);
      out[at + outputs + p] = keep(t1);
      out[at + 2 * outputs + p] = keep(t2);
      out[at + 3 * outputs + p] = keep(t3);
    }
  }
  for (; r < rows; r++) {
    for (let o = 0; o < outputs; o++) {
      let sum = biases[o];
      for (let i = 0; i < inputs; i++) sum += weights[o * inputs + i] * input[r * inputs + i];
      out[r * outputs + o] = keep(sum);
    }
  }
}

/** Logits to probabilities, in place. */
export function softmax(values: Float32Array): void {
  let top = -Infinity;
  for (const v of values) if (v > top) top = v;
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] = Math.exp(values[i] - top);
  for (let i = 0; i < values.length; i++) values[i] /= sum;
}
