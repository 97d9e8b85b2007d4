/**
 * Instants at which strings may be struck: peaks of the onset strength of the chord region, placed to about 5 ms by the
 * steepest rise of the energy around them. A recording that begins a little later, or came through a codec, must give
 * the same instants: so peaks are taken between frames, and a rise counts less the farther it lies from its peak.
 */
import { parabolicPeak, pickPeaks, quantile } from '../../dsp';
import type { OnsetStrength } from './onset-strength';

/** A stroke is at most this early or late against where its peak says that it is. */
const REFINE_S = 0.03;
/** Standard deviation of that. */
const SPREAD_S = 0.01;
/** Energies are compared over this time before and after an instant, in steps of a millisecond. */
const ARM_S = 0.01;
const STEP_S = 0.001;
/** Deviation, in steps, of what belongs to the same top, how fast steps count less the lower they are, and rounds of the shift. */
const TOP_STEPS = 3;
const TOP_SHARPNESS = 5;
const SHIFTS = 20;
/** Peaks lag: the strength compares two windows of 46 ms, 20 ms apart, and is highest when the second one holds the attack. */
const PEAK_LAG_S = 0.008;
/** Two strums of one guitar are never closer: sixteenths at 240 bpm are 62 ms apart. */
const MIN_DISTANCE_S = 0.05;
/** Height above the local mean, as a share of a strong attack of this recording: low, the network decides. */
const RELATIVE_DELTA = 0.01;
/** Share of each neighbour in the smoothed curve: peaks one frame apart become one, and do not hang on where frames lie. */
const NEIGHBOUR_SHARE = 0.2;
/** Energy of what is nothing, against a full scale of 1. */
const SILENCE = 1e-9;

/** Signals are heard together, each against its own level. */
function refine(signals: readonly Float32Array[], sampleRate: number, timeS: number): number {
  const reach = Math.round(REFINE_S * sampleRate);
  const arm = Math.round(ARM_S * sampleRate);
  const step = Math.max(1, Math.round(STEP_S * sampleRate));
  const steps = Math.floor(reach / step);
  const centre = step * Math.round(((timeS - PEAK_LAG_S) * sampleRate) / step);
  const first = centre - reach - arm;
  /** Running sums of the energy of the differentiated signal, from `first` on: differences stress the pick, and central
   *  ones leave out what lies near half the sample rate, where one resampler differs from the next. */
  const sums = new Float64Array(2 * (reach + arm) + 1);
  const rises = new Float64Array(2 * steps + 1);
  for (const samples of signals) {
    for (let i = 0; i + 1 < sums.length; i++) {
      const difference = (samples[first + i + 1] ?? 0) - (samples[first + i - 1] ?? 0);
      sums[i + 1] = sums[i] + difference * difference;
    }
    rises.forEach((_, k) => {
      const at = arm + reach + (k - steps) * step;
      rises[k] += Math.log((sums[at + arm] - sums[at] + SILENCE) / (sums[at] - sums[at - arm] + SILENCE));
    });
  }
  const weighted = rises.map((rise, k) => {
    const away = ((k - steps) * step) / sampleRate;
    return rise * Math.exp(-0.5 * (away / SPREAD_S) ** 2);
  });
  const best = weighted.reduce((top, rise, k) => (rise > weighted[top] ? k : top), steps);
  return Math.max(0, centre + (Math.round(topAround(weighted, best)) - steps) * step) / sampleRate;
}

/** Place of a top, in steps: mean shift (Comaniciu and Meer 2002) from the highest step, so that it moves evenly with the sound. */
function topAround(heights: Float64Array, best: number): number {
  let top = best;
  for (let round = 0; round < SHIFTS; round++) {
    let [sum, total] = [0, 0];
    heights.forEach((height, k) => {
      const share = Math.exp(TOP_SHARPNESS * (height - heights[best]) - 0.5 * ((k - top) / TOP_STEPS) ** 2);
      sum += share * k;
      total += share;
    });
    top = sum / total;
  }
  return top;
}

function smoothed(curve: Float32Array): Float32Array {
  return curve.map((value, n) => {
    const around = (curve[n - 1] ?? value) + (curve[n + 1] ?? value);
    return (1 - 2 * NEIGHBOUR_SHARE) * value + NEIGHBOUR_SHARE * around;
  });
}

/**
 * Instants that may be strokes, in seconds, ascending: nearly all strokes are among them, and many drums.
 * `strength` may be the sum of several signals' curves; instants are placed by `signals`. Of two that are too close the
 * stronger one stays.
 */
export function findOnsetCandidates(
  signals: readonly Float32Array[],
  sampleRate: number,
  { frameRate, curves }: OnsetStrength,
): number[] {
  const curve = smoothed(curves.body.map((body, n) => body + 0.5 * curves.edge[n]));
  const strong = quantile(curve, 0.98) ?? 0;
  if (strong <= 0.02) return [];
  const peaks = pickPeaks(curve, {
    maxRadius: Math.round(MIN_DISTANCE_S * 0.6 * frameRate),
    meanRadius: Math.round(0.12 * frameRate),
    delta: RELATIVE_DELTA * strong,
  });
  const onsets: { readonly timeS: number; readonly height: number }[] = [];
  for (const peak of peaks) {
    const { offset, value } = parabolicPeak(curve[peak - 1] ?? 0, curve[peak], curve[peak + 1] ?? 0);
    const onset = { timeS: refine(signals, sampleRate, (peak + offset) / frameRate), height: value };
    const before = onsets.at(-1);
    if (!before || onset.timeS - before.timeS >= MIN_DISTANCE_S) onsets.push(onset);
    else if (onset.height > before.height) onsets[onsets.length - 1] = onset;
  }
  return onsets.map(({ timeS }) => timeS);
}
