/**
 * Small feed-forward networks: dense layers with rectifiers between them. Weights are whole numbers from -127 to 127
 * with a scale per output (symmetric quantisation), so that they stay small; `training/` makes them.
 */
import { bytesOf } from '../../units';
import { multiplyDense, type DenseLayer } from './dense-kernel';

export interface LayerWeights {
  readonly inputs: number;
  readonly outputs: number;
  /** `outputs` rows of `inputs`, row by row: signed bytes in base64. */
  readonly weights: string;
  /** Of each row: weight = whole number * scale. */
  readonly scales: readonly number[];
  readonly biases: readonly number[];
}

/** Layers that were read before: a live input asks twice a second, and reading takes longer than half a second of music. */
const READ = new WeakMap<LayerWeights, DenseLayer>();

/** Throws a RangeError when the counts do not fit each other, or the features that the layer is to read. */
export function readLayer(layer: LayerWeights, wantedInputs = layer.inputs): DenseLayer {
  if (layer.inputs !== wantedInputs) {
    throw new RangeError(`the layer must read ${wantedInputs} features, but was trained on ${layer.inputs}`);
  }
  const before = READ.get(layer) ?? unpack(layer);
  READ.set(layer, before);
  return before;
}

function unpack({ inputs, outputs, weights, scales, biases }: LayerWeights): DenseLayer {
  const whole = new Int8Array(bytesOf(weights).buffer);
  if (whole.length !== inputs * outputs || scales.length !== outputs || biases.length !== outputs) {
    throw new RangeError(
      `a layer of ${inputs} by ${outputs} must hold ${inputs * outputs} weights, but has ${whole.length}`,
    );
  }
  return {
    inputs,
    outputs,
    weights: Float32Array.from(whole, (w, i) => w * scales[Math.floor(i / inputs)]),
    biases: Float32Array.from(biases),
  };
}

/**
 * `rows` inputs, one after the other, to as many outputs: `out[r][o] = bias[o] + sum of weight[o][i] * input[r][i]`; with
 * `isRectified` negative results become 0.
 */
export function applyLayer(
  layer: DenseLayer,
  input: Float32Array,
  rows: number,
  out: Float32Array,
  isRectified: boolean,
): void {
  multiplyDense(layer, input, rows, out);
  if (!isRectified) return;
  for (let i = 0; i < rows * layer.outputs; i++) if (out[i] < 0) out[i] = 0;
}
