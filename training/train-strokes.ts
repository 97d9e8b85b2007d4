/**
 * `tsx training/train-strokes.ts`: trains the network that tells strokes from everything else on the generated songs,
 * prints its scores on songs it has not seen, and writes `core/src/mir/weights/strokes.json`.
 */
import { STROKE_FEATURES } from '@wild-needle/core/mir';
import { createRandom } from '@wild-needle/core/units';
import { dropOut, maskDropped, shuffled, TrainableLayer } from './nets/dense';
import { seedsForTraining, seedsForValidation, writeWeights } from './songs';
import { strokeExamples, type StrokeExamples } from './stroke-examples';

const CLASSES = ['none', 'ring', 'palm mute', 'dead'] as const;
const HIDDEN = 96;
const BATCH = 64;
const EPOCHS = 14;
const RATE = 2e-3;
const DECAY = 5e-3;
/** Unseen songs are heard better for it. */
const DROPOUT = 0.3;

function collect(seeds: readonly number[]): StrokeExamples {
  const songs = seeds.map(strokeExamples);
  const count = songs.reduce((sum, song) => sum + song.labels.length, 0);
  const features = new Float32Array(count * STROKE_FEATURES);
  const labels = new Uint8Array(count);
  let at = 0;
  for (const song of songs) {
    features.set(song.features, at * STROKE_FEATURES);
    labels.set(song.labels, at);
    at += song.labels.length;
  }
  return { features, labels, missed: songs.reduce((sum, song) => sum + song.missed, 0) };
}

const random = createRandom(7);
const hidden = new TrainableLayer(STROKE_FEATURES, HIDDEN, random);
const output = new TrainableLayer(HIDDEN, CLASSES.length, random);

function predict(input: Float32Array, rows: number, h: Float32Array, p: Float32Array, dropout = 0): void {
  hidden.forward(input, rows, h, true);
  if (dropout > 0) dropOut(h, dropout, random);
  output.forward(h, rows, p, false);
  for (let r = 0; r < rows; r++) {
    const row = p.subarray(r * CLASSES.length, (r + 1) * CLASSES.length);
    const top = Math.max(...row);
    let sum = 0;
    for (let c = 0; c < row.length; c++) sum += row[c] = Math.exp(row[c] - top);
    for (let c = 0; c < row.length; c++) row[c] /= sum;
  }
}

function f1(hits: number, said: number, truth: number): string {
  return ((2 * hits) / Math.max(1, said + truth)).toFixed(3);
}

function score(name: string, { features, labels, missed }: StrokeExamples): void {
  const rows = labels.length;
  const h = new Float32Array(rows * HIDDEN);
  const p = new Float32Array(rows * CLASSES.length);
  predict(features, rows, h, p);
  const count = Array.from({ length: 4 }, () => [0, 0, 0, 0]);
  for (let r = 0; r < rows; r++) {
    const row = p.subarray(r * 4, r * 4 + 4);
    const isStroke = row[0] < 0.5;
    const said = isStroke ? 1 + [row[1], row[2], row[3]].indexOf(Math.max(row[1], row[2], row[3])) : 0;
    count[labels[r]][said]++;
  }
  const column = (c: number): number => count.reduce((s, row) => s + row[c], 0);
  const sum = (row: readonly number[]): number => row.reduce((s, v) => s + v, 0);
  const found = count.slice(1).reduce((s, row) => s + sum(row.slice(1)), 0);
  const strokes = count.slice(1).reduce((s, row) => s + sum(row), 0) + missed;
  const told = column(1) + column(2) + column(3);
  process.stdout.write(
    `${name}: onset F1 ${f1(found, told, strokes)} ` +
      `palm mute F1 ${f1(count[2][2], column(2), sum(count[2]))} dead F1 ${f1(count[3][3], column(3), sum(count[3]))} ` +
      `of ${strokes} strokes, ${missed} without a candidate, ${rows} candidates\n`,
  );
}

const training = collect(seedsForTraining());
const validation = collect(seedsForValidation());
const rows = training.labels.length;
const input = new Float32Array(BATCH * STROKE_FEATURES);
const h = new Float32Array(BATCH * HIDDEN);
const p = new Float32Array(BATCH * CLASSES.length);
const dh = new Float32Array(BATCH * HIDDEN);
for (let epoch = 0; epoch < EPOCHS; epoch++) {
  const order = shuffled(rows, random);
  const rate = RATE * 0.5 * (1 + Math.cos((Math.PI * epoch) / EPOCHS));
  let loss = 0;
  for (let from = 0; from + BATCH <= rows; from += BATCH) {
    for (let r = 0; r < BATCH; r++) {
      const at = order[from + r] * STROKE_FEATURES;
      input.set(training.features.subarray(at, at + STROKE_FEATURES), r * STROKE_FEATURES);
    }
    predict(input, BATCH, h, p, DROPOUT);
    for (let r = 0; r < BATCH; r++) {
      const label = training.labels[order[from + r]];
      loss -= Math.log(p[r * 4 + label] + 1e-9);
      p[r * 4 + label] -= 1;
    }
    for (let i = 0; i < p.length; i++) p[i] /= BATCH;
    output.backward(h, BATCH, p, dh);
    maskDropped(dh, h, DROPOUT);
    hidden.backward(input, BATCH, dh, null);
    hidden.step(rate, DECAY);
    output.step(rate, DECAY);
  }
  if (epoch % 7 === 6) {
    process.stdout.write(`epoch ${epoch + 1}, loss ${(loss / rows).toFixed(4)}\n`);
    score('unseen songs', validation);
  }
}
score('training songs', training);
writeWeights('strokes', { hidden: hidden.quantise(), output: output.quantise() });
