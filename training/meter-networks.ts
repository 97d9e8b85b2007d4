/** The networks that rank readings of the meter: an ensemble, trained on songs that are counted as people count. */
import {
  METER_FEATURES,
  standardisedFeatures,
  type MeterNetworkWeights,
  type MeterWeights,
} from '@wild-needle/core/mir';
import { createRandom } from '@wild-needle/core/units';
import type { SongReadings } from './meter-readings';
import { maskRectified, TrainableLayer } from './nets/dense';

/** Members of the ensemble, by the seeds of their first weights. */
const SEEDS = [31, 32, 33, 34, 35, 36];
const HIDDEN = 16;
const EPOCHS = 300;
/** The second from this share of the epochs on. */
const RATES = [0.02, 0.004];
const SLOWER_FROM = 0.7;
/** Per song. With less of it the songs are learned by heart, with four times as much unseen songs are read worse (docs/experiments.md). */
const PENALTY = 0.01;

/** Of each feature over all readings of all songs. */
function spreadOf(songs: readonly SongReadings[]): Pick<MeterWeights, 'means' | 'deviations'> {
  const readings = songs.flatMap((song) => song.readings.map((r) => r.features));
  const rounded = (value: number): number => Number(value.toPrecision(5));
  const meanOf = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;
  const columns = Array.from({ length: METER_FEATURES }, (_, i) => readings.map((f) => f[i]));
  const means = columns.map((column) => rounded(meanOf(column)));
  // A feature that never changes says nothing: it is left as it is.
  const deviations = columns.map(
    (column, i) => rounded(Math.sqrt(meanOf(column.map((v) => (v - means[i]) ** 2)))) || 1,
  );
  return { means, deviations };
}

/**
 * Gradient of the log loss of the songs by the score of each reading: its probability among all readings of its song, less its share of what
 * is right. Answers the mean loss.
 */
function gradientOf(scores: Float32Array, songs: readonly SongReadings[], gradient: Float32Array): number {
  let at = 0;
  let loss = 0;
  for (const { isRight } of songs) {
    const own = scores.subarray(at, at + isRight.length);
    const top = own.reduce((m, v) => Math.max(m, v), -Infinity);
    let [all, right] = [0, 1e-12];
    own.forEach((s, i) => {
      all += Math.exp(s - top);
      if (isRight[i]) right += Math.exp(s - top);
    });
    own.forEach((s, i) => {
      const e = Math.exp(s - top);
      gradient[at + i] = e / all - (isRight[i] ? e / right : 0);
    });
    loss -= Math.log(right / all);
    at += isRight.length;
  }
  return loss / songs.length;
}

/** One epoch is one step on all songs: they are few. Answers the mean log loss. */
function train(
  rows: Float32Array,
  songs: readonly SongReadings[],
  hidden: TrainableLayer,
  output: TrainableLayer,
): number {
  const count = rows.length / METER_FEATURES;
  const middle = new Float32Array(count * hidden.outputs);
  const back = new Float32Array(middle.length);
  const [scores, gradient] = [new Float32Array(count), new Float32Array(count)];
  let loss = 0;
  for (let epoch = 0; epoch < EPOCHS; epoch++) {
    hidden.forward(rows, count, middle, true);
    output.forward(middle, count, scores, false);
    loss = gradientOf(scores, songs, gradient);
    output.backward(middle, count, gradient, back);
    maskRectified(back, middle, back.length);
    hidden.backward(rows, count, back, null);
    const rate = RATES[epoch < SLOWER_FROM * EPOCHS ? 0 : 1];
    for (const layer of [hidden, output]) {
      layer.penalise(PENALTY * songs.length);
      layer.step(rate, 0);
    }
  }
  return loss;
}

/** Of songs that all have a right reading. */
export function trainMeterNetworks(songs: readonly SongReadings[]): MeterWeights {
  const spread = spreadOf(songs);
  const rows = standardisedFeatures(
    songs.flatMap(({ readings }) => readings),
    spread,
  );
  const members = SEEDS.map((seed): MeterNetworkWeights => {
    const random = createRandom(seed);
    const hidden = new TrainableLayer(METER_FEATURES, HIDDEN, random);
    const output = new TrainableLayer(HIDDEN, 1, random);
    process.stdout.write(`seed ${seed}, loss ${train(rows, songs, hidden, output).toFixed(4)}\n`);
    return { hidden: hidden.quantise(), output: output.quantise() };
  });
  return { ...spread, members };
}
