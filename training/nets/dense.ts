/**
 * Training of small networks on plain typed arrays: a dense layer forwards and backwards over a batch, with the
 * parameters moved by Adam (Kingma and Ba 2015, algorithm 1) and pulled to zero a little (decoupled weight decay,
 * Loshchilov and Hutter 2019).
 */
import { applyLayer } from '@wild-needle/core/mir';
import { gaussian, type Random } from '@wild-needle/core/units';

const BETA1 = 0.9;
const BETA2 = 0.999;
const EPSILON = 1e-8;
/** Gradients under this are left out: a hundredth of what one wrong example in a batch of 16 makes. */
const NEGLIGIBLE = 5e-5;

class Parameters {
  readonly gradient: Float32Array;
  private readonly mean: Float32Array;
  private readonly variance: Float32Array;

  constructor(readonly values: Float32Array) {
    this.gradient = new Float32Array(values.length);
    this.mean = new Float32Array(values.length);
    this.variance = new Float32Array(values.length);
  }

  step(rate: number, decay: number, round: number): void {
    const { values, gradient, mean, variance } = this;
    const correct1 = 1 - BETA1 ** round;
    const correct2 = 1 - BETA2 ** round;
    for (let i = 0; i < values.length; i++) {
      const g = gradient[i];
      mean[i] = BETA1 * mean[i] + (1 - BETA1) * g;
      variance[i] = BETA2 * variance[i] + (1 - BETA2) * g * g;
      const move = mean[i] / correct1 / (Math.sqrt(variance[i] / correct2) + EPSILON);
      values[i] -= rate * (move + decay * values[i]);
      gradient[i] = 0;
    }
  }
}

/** `outputs` rows of `inputs` weights; batches are rows of values. */
export class TrainableLayer {
  private readonly weights: Parameters;
  private readonly biases: Parameters;
  private rounds = 0;

  constructor(
    readonly inputs: number,
    readonly outputs: number,
    random: Random,
  ) {
    // He et al. 2015: variance 2 / inputs keeps the scale through rectifiers.
    const deviation = Math.sqrt(2 / inputs);
    this.weights = new Parameters(
      Float32Array.from({ length: inputs * outputs }, () => deviation * gaussian(random)),
    );
    this.biases = new Parameters(new Float32Array(outputs));
  }

  forward(input: Float32Array, rows: number, out: Float32Array, isRectified: boolean): void {
    const { inputs, outputs } = this;
    const layer = { inputs, outputs, weights: this.weights.values, biases: this.biases.values };
    applyLayer(layer, input, rows, out, isRectified);
  }

  /** Collects gradients; writes those of the input into `inputGradient` unless it is null. */
  backward(
    input: Float32Array,
    rows: number,
    gradient: Float32Array,
    inputGradient: Float32Array | null,
  ): void {
    const { inputs, outputs } = this;
    const w = this.weights.values;
    const dw = this.weights.gradient;
    const db = this.biases.gradient;
    if (inputGradient) inputGradient.fill(0, 0, rows * inputs);
    for (let r = 0; r < rows; r++) {
      const x = r * inputs;
      for (let o = 0; o < outputs; o++) {
        const g = gradient[r * outputs + o];
        // Examples that are right already teach next to nothing.
        if (Math.abs(g) < NEGLIGIBLE) continue;
        db[o] += g;
        const row = o * inputs;
        for (let i = 0; i < inputs; i++) dw[row + i] += g * input[x + i];
        if (inputGradient) for (let i = 0; i < inputs; i++) inputGradient[x + i] += g * w[row + i];
      }
    }
  }

  step(rate: number, decay: number): void {
    this.rounds++;
    this.weights.step(rate, decay, this.rounds);
    this.biases.step(rate, 0, this.rounds);
  }

  /** As whole numbers with a scale per output, see `core/src/mir/network.ts`. */
  quantise(): {
    inputs: number;
    outputs: number;
    weights: number[];
    scales: number[];
    biases: number[];
  } {
    const { inputs, outputs } = this;
    const scales: number[] = [];
    const weights: number[] = [];
    for (let o = 0; o < outputs; o++) {
      const row = this.weights.values.subarray(o * inputs, (o + 1) * inputs);
      const scale = row.reduce((m, v) => Math.max(m, Math.abs(v)), 1e-9) / 127;
      scales.push(Number(scale.toPrecision(6)));
      for (const v of row) weights.push(Math.round(v / scale));
    }
    return {
      inputs,
      outputs,
      weights,
      scales,
      biases: Array.from(this.biases.values, (b) => Number(b.toPrecision(5))),
    };
  }
}

/** Gradient through a rectifier: nothing passes where its output is 0. */
export function maskRectified(gradient: Float32Array, output: Float32Array, length: number): void {
  for (let i = 0; i < length; i++) if (output[i] === 0) gradient[i] = 0;
}

/** A new order of 0 … count - 1. */
export function shuffled(count: number, random: Random): Uint32Array {
  const order = Uint32Array.from({ length: count }, (_, i) => i);
  for (let i = count - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [order[i], order[j]] = [order[j], order[i]];
  }
  return order;
}

/** Leaves out a share of the units, in place (Srivastava et al. 2014), so that none relies on another. */
export function dropOut(units: Float32Array, share: number, random: Random): void {
  for (let i = 0; i < units.length; i++) units[i] = random() < share ? 0 : units[i] / (1 - share);
}

/** Gradient through {@link dropOut} of rectified units: nothing passes where the result is 0. */
export function maskDropped(gradient: Float32Array, units: Float32Array, share: number): void {
  for (let i = 0; i < gradient.length; i++) gradient[i] = units[i] === 0 ? 0 : gradient[i] / (1 - share);
}
