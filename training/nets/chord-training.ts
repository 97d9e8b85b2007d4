/**
 * The network of `core/src/mir/chords/chord-network.ts` on its way through training: looked at with noise and units left out, and
 * back with the gradients of its answers. A batch is a row per strum and possible lowest note.
 */
import {
  BASS_NOTES,
  CHORD_INPUTS,
  SHAPES,
  LOWEST_BASS,
  ACTIVATIONS,
  CONTEXT_NOTES,
  logistic,
  softmax,
  writeChordInput,
  type ChordNetworkWeights,
} from '@wild-needle/core/mir';
import { gaussian, type Random } from '@wild-needle/core/units';
import { dropOut, maskDropped, maskRectified, TrainableLayer } from './dense';

/** A strum as the network sees it, and what is true of it. */
export interface ChordExample {
  readonly mid: Float32Array;
  /** Null where nothing stands in the sides. */
  readonly side: Float32Array | null;
  readonly bass: number;
  /** Index into CHORD_SHAPES. */
  readonly shape: number;
  /** ACTIVATIONS flags. */
  readonly activation: Uint8Array;
}

export interface ChordTrainingOptions {
  readonly hidden: number;
  readonly bottleneck: number;
  readonly batch: number;
  /** Share of units that each step leaves out. */
  readonly dropout: number;
  /** Deviation of what is added to a spectrum of unit length. */
  readonly noise: number;
  readonly random: Random;
}

/** Activation of single notes counts this much against lowest note and shape. */
const ACTIVATION_WEIGHT = 0.15;

export class ChordTraining {
  private readonly layers;
  private readonly rows: number;
  private readonly told: number;
  private readonly at;

  constructor(private readonly options: ChordTrainingOptions) {
    const { hidden, bottleneck, batch, random } = options;
    this.rows = batch * BASS_NOTES;
    this.told = CONTEXT_NOTES.length * bottleneck;
    this.layers = {
      hidden: new TrainableLayer(CHORD_INPUTS, hidden, random),
      bottleneck: new TrainableLayer(hidden, bottleneck, random),
      context: new TrainableLayer(this.told, hidden, random),
      shapes: new TrainableLayer(hidden, SHAPES, random),
      activation: new TrainableLayer(hidden, ACTIVATIONS, random),
    };
    const rowsOf = (width: number): Float32Array => new Float32Array(this.rows * width);
    const strumsOf = (width: number): Float32Array => new Float32Array(batch * width);
    this.at = {
      input: rowsOf(CHORD_INPUTS),
      seen: rowsOf(hidden),
      bottlenecks: rowsOf(bottleneck),
      told: rowsOf(this.told),
      added: rowsOf(hidden),
      sum: rowsOf(hidden),
      logits: rowsOf(SHAPES),
      lowest: strumsOf(hidden),
      present: strumsOf(ACTIVATIONS),
      // Gradients of the above.
      dSum: rowsOf(hidden),
      dAdded: rowsOf(hidden),
      dTold: rowsOf(this.told),
      dBottlenecks: rowsOf(bottleneck),
      dSeen: rowsOf(hidden),
      dLowest: strumsOf(hidden),
    };
  }

  /** Collects the gradients of a full batch; answers the sum of its log losses over lowest note and shape. */
  learn(batch: readonly ChordExample[]): number {
    this.look(batch);
    const loss = this.compare(batch);
    this.goBack(batch);
    return loss;
  }

  step(rate: number, decay: number): void {
    for (const layer of Object.values(this.layers)) layer.step(rate, decay);
  }

  weights(): ChordNetworkWeights {
    const { hidden, bottleneck, context, shapes, activation } = this.layers;
    return {
      hidden: hidden.quantise(),
      bottleneck: bottleneck.quantise(),
      context: context.quantise(),
      shapes: shapes.quantise(),
      activation: activation.quantise(),
    };
  }

  /** As `createChordNetwork` looks at one strum. */
  private look(batch: readonly ChordExample[]): void {
    const { layers, rows, at, options } = this;
    const noisy = (spectrum: Float32Array): Float32Array =>
      spectrum.map((v) => v + options.noise * gaussian(options.random));
    batch.forEach((example, s) => {
      const [mid, side] = [noisy(example.mid), example.side && noisy(example.side)];
      for (let b = 0; b < BASS_NOTES; b++) {
        const from = (s * BASS_NOTES + b) * CHORD_INPUTS;
        writeChordInput(mid, side, LOWEST_BASS + b, at.input.subarray(from, from + CHORD_INPUTS));
      }
    });
    layers.hidden.forward(at.input, rows, at.seen, true);
    dropOut(at.seen, options.dropout, options.random);
    layers.bottleneck.forward(at.seen, rows, at.bottlenecks, false);
    at.told.fill(0);
    this.forContext((told, bottleneck) =>
      at.told.set(at.bottlenecks.subarray(bottleneck, bottleneck + options.bottleneck), told),
    );
    layers.context.forward(at.told, rows, at.added, true);
    for (let i = 0; i < at.sum.length; i++) at.sum[i] = at.seen[i] + at.added[i];
    dropOut(at.sum, options.dropout, options.random);
    layers.shapes.forward(at.sum, rows, at.logits, false);
    batch.forEach((example, s) => {
      const from = rowOf(example, s) * options.hidden;
      at.lowest.set(at.sum.subarray(from, from + options.hidden), s * options.hidden);
    });
    layers.activation.forward(at.lowest, batch.length, at.present, false);
  }

  /** Turns what was answered into gradients. */
  private compare(batch: readonly ChordExample[]): number {
    const { logits, present } = this.at;
    let loss = 0;
    batch.forEach(({ bass, shape, activation }, s) => {
      const all = logits.subarray(s * BASS_NOTES * SHAPES, (s + 1) * BASS_NOTES * SHAPES);
      softmax(all);
      const answer = (bass - LOWEST_BASS) * SHAPES + shape;
      loss -= Math.log(all[answer] + 1e-9);
      all[answer] -= 1;
      activation.forEach((sounds, k) => {
        const i = s * ACTIVATIONS + k;
        present[i] = (ACTIVATION_WEIGHT * (logistic(present[i]) - sounds)) / batch.length;
      });
    });
    for (let i = 0; i < logits.length; i++) logits[i] /= batch.length;
    return loss;
  }

  private goBack(batch: readonly ChordExample[]): void {
    const { layers, rows, at, options } = this;
    const { hidden, bottleneck, dropout } = options;
    layers.shapes.backward(at.sum, rows, at.logits, at.dSum);
    layers.activation.backward(at.lowest, batch.length, at.present, at.dLowest);
    batch.forEach((example, s) => {
      const row = rowOf(example, s);
      for (let k = 0; k < hidden; k++) at.dSum[row * hidden + k] += at.dLowest[s * hidden + k];
    });
    maskDropped(at.dSum, at.sum, dropout);
    at.dAdded.set(at.dSum);
    maskRectified(at.dAdded, at.added, at.added.length);
    layers.context.backward(at.told, rows, at.dAdded, at.dTold);
    at.dBottlenecks.fill(0);
    this.forContext((told, from) => {
      for (let k = 0; k < bottleneck; k++) at.dBottlenecks[from + k] += at.dTold[told + k];
    });
    layers.bottleneck.backward(at.seen, rows, at.dBottlenecks, at.dSeen);
    for (let i = 0; i < at.dSeen.length; i++) at.dSeen[i] += at.dSum[i];
    maskDropped(at.dSeen, at.seen, dropout);
    layers.hidden.backward(at.input, rows, at.dSeen, null);
  }

  /** Calls back for each row and each of its context in range: where it is told, and where the bottleneck of the other stands. */
  private forContext(tell: (told: number, bottleneck: number) => void): void {
    const { bottleneck } = this.options;
    for (let row = 0; row < this.rows; row++) {
      const b = row % BASS_NOTES;
      CONTEXT_NOTES.forEach((semitones, r) => {
        const other = b + semitones;
        if (other >= 0 && other < BASS_NOTES)
          tell(row * this.told + r * bottleneck, (row + semitones) * bottleneck);
      });
    }
  }
}

/** Row of the true lowest note of the strum at place `s` of a batch. */
function rowOf({ bass }: ChordExample, s: number): number {
  return s * BASS_NOTES + bass - LOWEST_BASS;
}
