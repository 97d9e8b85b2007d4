/**
 * `tsx training/train-strokes.ts`: trains the networks that tell strokes from everything else on the generated songs,
 * prints their scores on songs they have not seen, and writes `core/src/mir/strokes/strokes.json`.
 */
import {
  createStrokeNetwork,
  softmax,
  STROKE_FEATURES,
  STROKE_KINDS,
  strokeProbability,
  type StrokeNetworkWeights,
} from '@wild-needle/core/mir';
import { createRandom, type Random } from '@wild-needle/core/units';
import { dropOut, maskDropped, shuffled, TrainableLayer } from './nets/dense';
import { seedsOf, writeWeights } from './songs';
import { strokeExamples, type StrokeExamples } from './stroke-examples';

const CLASSES = ['none', ...STROKE_KINDS] as const;
/**
 * Members of the ensemble: seeds of their first weights, and below which seed the songs are that they learn from. With all songs for each the
 * whole is steadier on real records and tells palm mutes worse: see docs/experiments.md.
 */
const MEMBERS = [
  { seed: 7, songsBelow: 4000 },
  { seed: 8, songsBelow: 4000 },
  { seed: 9, songsBelow: Infinity },
];
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

/** One network with all that it needs while it learns. */
class Learner {
  private readonly random: Random;
  private readonly hidden: TrainableLayer;
  private readonly output: TrainableLayer;

  constructor(seed: number) {
    this.random = createRandom(seed);
    this.hidden = new TrainableLayer(STROKE_FEATURES, HIDDEN, this.random);
    this.output = new TrainableLayer(HIDDEN, CLASSES.length, this.random);
  }

  /** Goes once over all examples, in a new order; answers their mean log loss. */
  learn({ features, labels }: StrokeExamples, rate: number): number {
    const { random, hidden, output } = this;
    const rows = labels.length;
    const input = new Float32Array(BATCH * STROKE_FEATURES);
    const h = new Float32Array(BATCH * HIDDEN);
    const p = new Float32Array(BATCH * CLASSES.length);
    const dh = new Float32Array(BATCH * HIDDEN);
    const order = shuffled(rows, random);
    let loss = 0;
    for (let from = 0; from + BATCH <= rows; from += BATCH) {
      for (let r = 0; r < BATCH; r++) {
        const at = order[from + r] * STROKE_FEATURES;
        input.set(features.subarray(at, at + STROKE_FEATURES), r * STROKE_FEATURES);
      }
      hidden.forward(input, BATCH, h, true);
      dropOut(h, DROPOUT, random);
      output.forward(h, BATCH, p, false);
      for (let r = 0; r < BATCH; r++) {
        const answer = p.subarray(r * CLASSES.length, (r + 1) * CLASSES.length);
        softmax(answer);
        const label = labels[order[from + r]];
        loss -= Math.log(answer[label] + 1e-9);
        answer[label] -= 1;
      }
      for (let i = 0; i < p.length; i++) p[i] /= BATCH;
      output.backward(h, BATCH, p, dh);
      maskDropped(dh, h, DROPOUT);
      hidden.backward(input, BATCH, dh, null);
      hidden.step(rate, DECAY);
      output.step(rate, DECAY);
    }
    return loss / rows;
  }

  weights(): StrokeNetworkWeights {
    return { hidden: this.hidden.quantise(), output: this.output.quantise() };
  }
}

function f1(hits: number, said: number, truth: number): string {
  return ((2 * hits) / Math.max(1, said + truth)).toFixed(3);
}

/** With the very networks that the analysis uses. */
function score(
  name: string,
  members: readonly StrokeNetworkWeights[],
  { features, labels, missed }: StrokeExamples,
): void {
  const count = Array.from({ length: 4 }, () => [0, 0, 0, 0]);
  createStrokeNetwork({ members })(features).forEach((stroke, r) => {
    const shares = STROKE_KINDS.map((kind) => stroke[kind]);
    const said = strokeProbability(stroke) > 0.5 ? 1 + shares.indexOf(Math.max(...shares)) : 0;
    count[labels[r]][said]++;
  });
  const column = (c: number): number => count.reduce((s, row) => s + row[c], 0);
  const sum = (row: readonly number[]): number => row.reduce((s, v) => s + v, 0);
  const found = count.slice(1).reduce((s, row) => s + sum(row.slice(1)), 0);
  const strokes = count.slice(1).reduce((s, row) => s + sum(row), 0) + missed;
  const told = column(1) + column(2) + column(3);
  process.stdout.write(
    `${name}: onset F1 ${f1(found, told, strokes)} ` +
      `palm mute F1 ${f1(count[2][2], column(2), sum(count[2]))} dead F1 ${f1(count[3][3], column(3), sum(count[3]))} ` +
      `of ${strokes} strokes, ${missed} without a candidate, ${labels.length} candidates\n`,
  );
}

const unseen = (['plain validation', 'rough validation'] as const).map((kind) => ({
  kind,
  examples: collect(seedsOf(kind)),
}));
const scoreUnseen = (members: readonly StrokeNetworkWeights[]): void => {
  for (const { kind, examples } of unseen) score(kind, members, examples);
};
const members = MEMBERS.map(({ seed, songsBelow }) => {
  const training = collect(seedsOf('plain', 'rough').filter((song) => song < songsBelow));
  const learner = new Learner(seed);
  for (let epoch = 0; epoch < EPOCHS; epoch++) {
    // Falls to zero by half a cosine (Loshchilov and Hutter 2017).
    const loss = learner.learn(training, RATE * 0.5 * (1 + Math.cos((Math.PI * epoch) / EPOCHS)));
    process.stdout.write(`seed ${seed}, epoch ${epoch + 1}, loss ${loss.toFixed(4)}\n`);
  }
  scoreUnseen([learner.weights()]);
  return learner.weights();
});
scoreUnseen(members);
writeWeights('strokes', { members });
