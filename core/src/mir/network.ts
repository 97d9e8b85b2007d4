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

/** `out[o] = bias[o] + sum of weight[o][i] * input[from + i]`; with `isRectified` negative results become 0. */
export function applyLayer(
  { inputs, outputs, weights, biases }: DenseLayer,
  input: Float32Array,
  out: Float32Array,
  isRectified: boolean,
): void {
  let o = 0;
  // Four rows at a time: additions that need not wait for each other are twice as fast.
  for (; o + 4 <= outputs; o += 4) {
    let [a, b, c, d] = [biases[o], biases[o + 1], biases[o + 2], biases[o + 3]];
    const row = o * inputs;
    for (let i = 0; i < inputs; i++) {
      const value = input[i];
      a += weights[row + i] * value;
      b += weights[row + inputs + i] * value;
      c += weights[row + 2 * inputs + i] * value;
      d += weights[row + 3 * inputs + i] * value;
    }
    out[o] = a;
    out[o + 1] = b;
    out[o + 2] = c;
    out[o + 3] = d;
  }
  for (; o < outputs; o++) {
    let sum = biases[o];
    const row = o * inputs;
    for (let i = 0; i < inputs; i++) sum += weights[row + i] * input[i];
    out[o] = sum;
  }
  if (isRectified) for (let i = 0; i < outputs; i++) if (out[i] < 0) out[i] = 0;
}

/** Logits to probabilities, in place. */
export function softmax(values: Float32Array): void {
  let top = -Infinity;
  for (const v of values) if (v > top) top = v;
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i] = Math.exp(values[i] - top);
  for (let i = 0; i < values.length; i++) values[i] /= sum;
}
