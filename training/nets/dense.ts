/**
 * Training of small networks on plain typed arrays: a dense layer forwards and backwards over a batch, with the
 * parameters moved by Adam (Kingma and Ba 2015, algorithm 1) and pulled to zero a little (decoupled weight decay,
 * Loshchilov and Hutter 2019).
 */
import { applyLayer, type LayerWeights } from '@wild-needle/core/mir';
import { gaussian, type Random } from '@wild-needle/core/units';

const BETA1 = 0.9;
const BETA2 = 0.999;
const EPSILON = 1e-8;
/** Rows of gradients that are all under this are left out: a hundredth of what one wrong example in a batch of 16 makes. */
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

  /** Adds the gradient of `strength` / 2 times the sum of squares. */
  penalise(strength: number): void {
    for (let i = 0; i < this.values.length; i++) this.gradient[i] += strength * this.values[i];
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
    const teaching = rowsThatTeach(gradient, rows, outputs);
    const count = teaching.length;
    if (inputGradient) inputGradient.fill(0, 0, rows * inputs);
    if (count === 0) return;
    const g = gather(gradient, teaching, outputs);
    const gTurned = transpose(g, count, outputs);
    const db = this.biases.gradient;
    for (let o = 0; o < outputs; o++) for (let r = 0; r < count; r++) db[o] += gTurned[o * count + r];

    // Both are weighted sums again: gradient[o][i] = sum over rows of g[r][o] * input[r][i], and that of the input likewise.
    const x = transpose(gather(input, teaching, inputs), count, inputs);
    const biases = new Float32Array(inputs);
    const found = new Float32Array(outputs * inputs);
    applyLayer({ inputs: count, outputs: inputs, weights: x, biases }, gTurned, outputs, found, false);
    const dw = this.weights.gradient;
    for (let i = 0; i < found.length; i++) dw[i] += found[i];
    if (!inputGradient) return;
    const w = transpose(this.weights.values, outputs, inputs);
    const dx = new Float32Array(count * inputs);
    applyLayer({ inputs: outputs, outputs: inputs, weights: w, biases }, g, count, dx, false);
    teaching.forEach((row, r) => {
      inputGradient.set(dx.subarray(r * inputs, (r + 1) * inputs), row * inputs);
    });
  }

  /**
   * Large weights cost (L2, biases excepted). Unlike the decay of {@link step} it weighs against what the examples gain, which is what
   * keeps a network of few songs and strong answers from learning them by heart.
   */
  penalise(strength: number): void {
    this.weights.penalise(strength);
  }

  step(rate: number, decay: number): void {
    this.rounds++;
    this.weights.step(rate, decay, this.rounds);
    this.biases.step(rate, 0, this.rounds);
  }

  /** As whole numbers with a scale per output, see `core/src/mir/net/network.ts`. */
  quantise(): LayerWeights {
    const { inputs, outputs } = this;
    const scales: number[] = [];
    const whole = new Int8Array(inputs * outputs);
    for (let o = 0; o < outputs; o++) {
      const row = this.weights.values.subarray(o * inputs, (o + 1) * inputs);
      const scale = row.reduce((m, v) => Math.max(m, Math.abs(v)), 1e-9) / 127;
      scales.push(Number(scale.toPrecision(6)));
      row.forEach((v, i) => (whole[o * inputs + i] = Math.round(v / scale)));
    }
    return {
      inputs,
      outputs,
      weights: Buffer.from(whole.buffer).toString('base64'),
      scales,
      biases: Array.from(this.biases.values, (b) => Number(b.toPrecision(5))),
    };
  }
}

/** Examples that are right already, and lowest notes that nobody takes for one, teach next to nothing. */
function rowsThatTeach(gradient: Float32Array, rows: number, width: number): number[] {
  const teaching: number[] = [];
  for (let r = 0; r < rows; r++) {
    let i = r * width;
    while (i < (r + 1) * width && Math.abs(gradient[i]) < NEGLIGIBLE) i++;
    if (i < (r + 1) * width) teaching.push(r);
  }
  return teaching;
}

function gather(values: Float32Array, rows: readonly number[], width: number): Float32Array {
  const out = new Float32Array(rows.length * width);
  rows.forEach((row, r) => {
    out.set(values.subarray(row * width, (row + 1) * width), r * width);
  });
  return out;
}

/** `rows` rows of `columns` numbers to as many columns. */
function transpose(values: Float32Array, rows: number, columns: number): Float32Array {
  const out = new Float32Array(rows * columns);
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) out[c * rows + r] = values[r * columns + c];
  return out;
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
