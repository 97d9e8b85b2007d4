/**
 * Weighted sums by the vectors of WebAssembly (128 bits, four numbers at a time): some five times as fast as the same loop in
 * JavaScript, which has none (`docs/experiments.md`). The module is compiled once and keeps nothing between calls.
 */
import { bytesOf } from '../../units';
import { DENSE_WASM } from './dense-kernel-wasm';

export interface DenseLayer {
  readonly inputs: number;
  readonly outputs: number;
  /** Row by row. */
  readonly weights: Float32Array;
  readonly biases: Float32Array;
}

interface Kernel {
  readonly memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  multiplyDense(
    weights: number,
    biases: number,
    input: number,
    out: number,
    stride: number,
    rows: number,
    outputs: number,
  ): void;
}

/** What the core uses of the WebAssembly JavaScript Interface (W3C), in browsers, workers and Node alike. */
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array<ArrayBuffer>) => object;
  readonly Instance: new (module: object) => { readonly exports: unknown };
};

const PAGE_BYTES = 65_536;
const kernel = new WebAssembly.Instance(new WebAssembly.Module(bytesOf(DENSE_WASM))).exports as Kernel;

function upTo(multiple: number, count: number): number {
  return multiple * Math.ceil(count / multiple);
}

/** `out[r][o] = bias[o] + sum of weight[o][i] * input[r][i]`, for `rows` rows of `input`, one after the other. */
export function multiplyDense(layer: DenseLayer, input: Float32Array, rows: number, out: Float32Array): void {
  const { inputs, outputs, weights, biases } = layer;
  // The kernel takes numbers in fours, rows in fours, outputs in twos; what is added counts nothing or is not read.
  const stride = upTo(4, inputs);
  const [paddedRows, paddedOutputs] = [upTo(4, rows), upTo(2, outputs)];
  const biasesAt = stride * paddedOutputs;
  // Vectors load faster from where they do not straddle two lines of the cache.
  const inputAt = upTo(4, biasesAt + paddedOutputs);
  const outAt = inputAt + stride * paddedRows;
  const memory = memoryOf(outAt + paddedOutputs * paddedRows);
  layRows(memory, 0, stride, weights, inputs, outputs, paddedOutputs);
  memory.set(biases, biasesAt);
  layRows(memory, inputAt, stride, input, inputs, rows, paddedRows);
  kernel.multiplyDense(0, 4 * biasesAt, 4 * inputAt, 4 * outAt, stride, paddedRows, paddedOutputs);
  if (outputs === paddedOutputs) {
    out.set(memory.subarray(outAt, outAt + rows * outputs));
    return;
  }
  for (let r = 0; r < rows; r++) {
    const from = outAt + r * paddedOutputs;
    out.set(memory.subarray(from, from + outputs), r * outputs);
  }
}

/** The memory of the kernel, at least `count` numbers of it. */
function memoryOf(count: number): Float32Array {
  const missing = 4 * count - kernel.memory.buffer.byteLength;
  if (missing > 0) kernel.memory.grow(Math.ceil(missing / PAGE_BYTES));
  return new Float32Array(kernel.memory.buffer);
}

/** Copies `rows` rows of `width` numbers to where rows are `stride` long, and fills up with zeros to `paddedRows` rows. */
function layRows(
  memory: Float32Array,
  at: number,
  stride: number,
  values: Float32Array,
  width: number,
  rows: number,
  paddedRows: number,
): void {
  if (width === stride) memory.set(values.subarray(0, rows * width), at);
  else {
    for (let r = 0; r < rows; r++) {
      const from = at + r * stride;
      memory.set(values.subarray(r * width, (r + 1) * width), from);
      memory.fill(0, from + width, from + stride);
    }
  }
  memory.fill(0, at + rows * stride, at + paddedRows * stride);
}
