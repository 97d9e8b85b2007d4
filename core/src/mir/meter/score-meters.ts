/**
 * How much speaks for each reading of pulse, meter and downbeat, in log-odds: all readings of a song make probabilities (softmax). Small
 * networks from several seeds say it, trained on songs that are counted as people count (`training/train-meter.ts`).
 */
import { applyLayer, readLayer, type LayerWeights } from '../net/network';
import { METER_FEATURES, STREAMS, type MeterHypothesis, type PulseContent } from './meter';

export interface MeterNetworkWeights {
  readonly hidden: LayerWeights;
  /** One output. */
  readonly output: LayerWeights;
}

export interface MeterWeights {
  /** Of each of the {@link METER_FEATURES} over all readings of the training songs; networks read them in deviations from the mean. */
  readonly means: readonly number[];
  readonly deviations: readonly number[];
  readonly members: readonly MeterNetworkWeights[];
}

/** Log-odds per octave over this tempo, at which even fast songs are counted in halves. Chosen on the same songs as the next one. */
const TOO_FAST = { bpm: 200, perOctave: 15 };
/**
 * Nobody counts six eighths in two at the tempo of four quarters: over this many dotted quarters a minute bars of three or four beats
 * are meant, log-odds per octave. The songs of `training/material/counting.ts` have hardly anything that fast in two, so the networks can't say.
 */
const TOO_FAST_IN_TWO = { bpm: 85, perOctave: 8 };

/** How much speaks against a tempo that nobody counts. */
function tooFast({ tempoBpm, grouping: { meter } }: MeterHypothesis): number {
  const beyond = ({ bpm, perOctave }: typeof TOO_FAST): number =>
    perOctave * Math.max(0, Math.log2(tempoBpm / bpm));
  const isInTwo = meter.beats === 6 && meter.unit === 8;
  return beyond(TOO_FAST) + (isInTwo ? beyond(TOO_FAST_IN_TWO) : 0);
}

/** Features of readings one after the other, in deviations from their means. */
export function standardisedFeatures(
  readings: readonly Pick<MeterHypothesis, 'features'>[],
  { means, deviations }: Pick<MeterWeights, 'means' | 'deviations'>,
): Float32Array {
  const rows = new Float32Array(readings.length * METER_FEATURES);
  readings.forEach(({ features }, r) => {
    for (let i = 0; i < METER_FEATURES; i++)
      rows[r * METER_FEATURES + i] = (features[i] - means[i]) / deviations[i];
  });
  return rows;
}

/** Log-odds of readings of one song, up to what all have in common. Throws a RangeError when the weights do not fit the features. */
export function scoreMeters(readings: readonly MeterHypothesis[], weights: MeterWeights): Float32Array {
  const rows = readings.length;
  const features = standardisedFeatures(readings, weights);
  const scores = Float32Array.from(readings, (reading) => -tooFast(reading));
  for (const member of weights.members) {
    const hidden = readLayer(member.hidden, METER_FEATURES);
    const middle = new Float32Array(rows * hidden.outputs);
    const answers = new Float32Array(rows);
    applyLayer(hidden, features, rows, middle, true);
    applyLayer(readLayer(member.output, hidden.outputs), middle, rows, answers, false);
    for (let r = 0; r < rows; r++) scores[r] += answers[r] / weights.members.length;
  }
  return scores;
}

/**
 * What speaks for a downbeat at a pulse, by stream: the weights that a log-linear model of 450 generated songs gave to the difference
 * between downbeats and other beats, before networks ranked the readings.
 */
const DOWNBEAT_WEIGHTS = [0.89, 0.44, 0.29, 0.42, 1.04];

/** How much speaks for a downbeat at each pulse against any other beat. */
export function downbeatEvidence({ streams }: PulseContent): Float32Array {
  return Float32Array.from({ length: streams.length / STREAMS }, (_, n) =>
    DOWNBEAT_WEIGHTS.reduce((sum, weight, s) => sum + weight * streams[n * STREAMS + s], 0),
  );
}
