/**
 * How much speaks for each reading of pulse, meter and downbeat, in log-odds: all readings of a song make probabilities (softmax). Two models
 * answer half each (`training/train-meter.ts`): a log-linear one, fitted to songs whose tempi and drums are drawn at random, and small
 * networks from several seeds, trained on songs that are counted as people count. The second knows more of what bands do and the first less
 * of what they don't, see docs/experiments.md.
 */
import { clamp } from '../../units';
import { applyLayer, readLayer, type LayerWeights } from '../net/network';
import {
  METER_FEATURES,
  PER_STREAM,
  STREAMS,
  USUAL_BPM,
  type MeterHypothesis,
  type PulseContent,
} from './meter';

export interface MeterNetworkWeights {
  readonly hidden: LayerWeights;
  /** One output. */
  readonly output: LayerWeights;
}

export interface MeterNetworks {
  /** Of each of the {@link METER_FEATURES} over all readings of the training songs; networks read them in deviations from the mean. */
  readonly means: readonly number[];
  readonly deviations: readonly number[];
  readonly members: readonly MeterNetworkWeights[];
}

export interface MeterWeights extends MeterNetworks {
  /** One for each of the {@link METER_FEATURES}. */
  readonly logLinear: readonly number[];
}

/**
 * Deviations from the mean that the networks read at most: of what is farther off they have seen too little, and a click track in three was taken
 * for six eighths. Of 203 songs as many are right as without it, see docs/experiments.md.
 */
const RAREST = 2.5;
/**
 * The songs of the log-linear model have any tempo from 68 to 205 bpm alike; songs, and the pulse that listeners feel, gather around 120
 * (Moelants 2002, "Preferred tempo reconsidered", ICMPC 7; from memory). Log-odds for an octave away, over those of its weights: of .5, 1 and
 * 1.5 the one that heard most songs right, see docs/experiments.md.
 */
const RARER_PER_OCTAVE = 1;
/**
 * Riffs in sixteenths at 95 bpm were counted as eighths at 190: from here on a tempo is the rarer the faster it is, log-odds per octave. Of
 * 58 songs the nine over 145 bpm keep their tempo, of 40 rough generated ones four lose it, see docs/experiments.md ("Forty-eight new songs").
 */
const FASTER_IS_RARER = { bpm: 150, perOctave: 4 };
/** Log-odds per octave over this tempo, at which even fast songs are counted in halves. Chosen on the same songs as the next one. */
const TOO_FAST = { bpm: 200, perOctave: 15 };
/**
 * Nobody counts six eighths in two at the tempo of four quarters: over this many dotted quarters a minute bars of three or four beats
 * are meant, log-odds per octave. The songs of `training/material/counting.ts` have nothing
 * that fast in two, so the networks can't say.
 */
const TOO_FAST_IN_TWO = { bpm: 85, perOctave: 8 };

/** How much speaks against a tempo that nobody counts. */
function tooFast({ tempoBpm, grouping: { meter } }: MeterHypothesis): number {
  const beyond = ({ bpm, perOctave }: typeof TOO_FAST): number =>
    perOctave * Math.max(0, Math.log2(tempoBpm / bpm));
  const isInTwo = meter.beats === 6 && meter.unit === 8;
  return beyond(FASTER_IS_RARER) + beyond(TOO_FAST) + (isInTwo ? beyond(TOO_FAST_IN_TWO) : 0);
}

/** What the networks say of each reading, up to what all have in common. Throws a RangeError when they do not fit the features. */
export function networkScores(
  readings: readonly Pick<MeterHypothesis, 'features'>[],
  { means, deviations, members }: MeterNetworks,
): Float32Array {
  const rows = readings.length;
  const features = new Float32Array(rows * METER_FEATURES);
  readings.forEach((reading, r) => {
    for (let i = 0; i < METER_FEATURES; i++)
      features[r * METER_FEATURES + i] = clamp(
        (reading.features[i] - means[i]) / deviations[i],
        -RAREST,
        RAREST,
      );
  });
  const scores = new Float32Array(rows);
  for (const member of members) {
    const hidden = readLayer(member.hidden, METER_FEATURES);
    const middle = new Float32Array(rows * hidden.outputs);
    const answers = new Float32Array(rows);
    applyLayer(hidden, features, rows, middle, true);
    applyLayer(readLayer(member.output, hidden.outputs), middle, rows, answers, false);
    for (let r = 0; r < rows; r++) scores[r] += answers[r] / members.length;
  }
  return scores;
}

function logLinearScore({ features, tempoBpm }: MeterHypothesis, weights: readonly number[]): number {
  const octaves = Math.log2(tempoBpm / USUAL_BPM);
  return features.reduce((sum, f, i) => sum + f * weights[i], 0) - RARER_PER_OCTAVE * octaves * octaves;
}

/** Log-odds of readings of one song, up to what all have in common. Throws a RangeError when the weights do not fit the features. */
export function scoreMeters(readings: readonly MeterHypothesis[], weights: MeterWeights): Float32Array {
  const said = networkScores(readings, weights);
  return said.map(
    (score, r) => (score + logLinearScore(readings[r], weights.logLinear)) / 2 - tooFast(readings[r]),
  );
}

/** How much speaks for a downbeat at each pulse against any other beat, in the units of the log-linear model. */
export function downbeatEvidence({ streams }: PulseContent, { logLinear }: MeterWeights): Float32Array {
  return Float32Array.from({ length: streams.length / STREAMS }, (_, n) => {
    let sum = 0;
    // The first feature of each stream is the mean over downbeats less the mean over other beats.
    for (let s = 0; s < STREAMS; s++) sum += logLinear[s * PER_STREAM] * streams[n * STREAMS + s];
    return sum;
  });
}
