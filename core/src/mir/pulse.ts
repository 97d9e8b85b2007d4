/**
 * The finest regular pulse of a recording: which periods the attacks repeat with (autocorrelation), and for each the
 * chain of instants that follows it through drift (dynamic programming; Ellis 2007, "Beat tracking by dynamic
 * programming", Journal of New Music Research 36). Tracked at the level of eighth notes: tracked at quarters, a snare
 * on the off-beats pulls the chain half a beat away.
 */
import { parabolicPeak } from '../dsp';
import type { OnsetStrength } from './onset-strength';

/** Eighths at 230 bpm, and triplet eighths at 45. */
const SHORTEST_S = 0.125;
const LONGEST_S = 0.65;
const CANDIDATES = 7;
/** How strictly the pulse keeps its period; Ellis's alpha, for a curve of unit variance. */
const TIGHTNESS = 400;
/** Two periods nearer than this are the same. */
const SAME_PERIOD = 0.03;

export interface Pulse {
  readonly periodS: number;
  readonly timesS: readonly number[];
}

/** Mean-free, unit variance; negative parts stay so that silence does not attract the pulse. */
function normalise(curve: Float32Array): Float32Array {
  const mean = curve.reduce((s, v) => s + v, 0) / curve.length;
  const deviation = Math.sqrt(curve.reduce((s, v) => s + (v - mean) ** 2, 0) / curve.length) || 1;
  return curve.map((v) => (v - mean) / deviation);
}

/** Periods in frames, most likely first. */
function candidatePeriods(curve: Float32Array, frameRate: number): number[] {
  const shortest = Math.floor(SHORTEST_S * frameRate);
  const longest = Math.ceil(LONGEST_S * frameRate);
  const correlation = new Float32Array(4 * longest + 2);
  for (let lag = 1; lag < correlation.length; lag++) {
    let sum = 0;
    for (let n = lag; n < curve.length; n++) sum += curve[n] * curve[n - lag];
    correlation[lag] = sum / Math.max(1, curve.length - lag);
  }
  const found: { period: number; score: number }[] = [];
  for (let lag = shortest; lag <= longest; lag++) {
    // Bars repeat the pulse at its doubles too; half a frame off at the pulse is two frames at its fourth.
    const near = (at: number, radius: number): number => {
      let best = -Infinity;
      for (let l = at - radius; l <= at + radius; l++) best = Math.max(best, correlation[l] ?? -Infinity);
      return best;
    };
    const isPeak = correlation[lag] >= correlation[lag - 1] && correlation[lag] >= correlation[lag + 1];
    if (!isPeak) continue;
    const { offset } = parabolicPeak(correlation[lag - 1], correlation[lag], correlation[lag + 1]);
    const score = correlation[lag] + near(2 * lag, 1) + near(4 * lag, 2);
    found.push({ period: lag + offset, score });
  }
  found.sort((a, b) => b.score - a.score);
  const periods: number[] = [];
  const add = (period: number): void => {
    const isInside = period >= shortest && period <= longest;
    if (isInside && !periods.some((p) => Math.abs(Math.log(p / period)) < SAME_PERIOD)) periods.push(period);
  };
  for (const { period } of found.slice(0, CANDIDATES)) add(period);
  // A pulse that sounds only at every second or third place is found by its multiples.
  for (const { period } of found.slice(0, 2))
    for (const ratio of [1 / 2, 1 / 3, 2 / 3, 2]) add(period * ratio);
  return periods;
}

/** Ellis's recursion: the best chain of frames about one period apart through high onset strength. */
function followPulse(curve: Float32Array, period: number): number[] {
  const score = new Float32Array(curve.length);
  const back = new Int32Array(curve.length).fill(-1);
  const shortest = Math.round(period / 2);
  const costs: number[] = [];
  for (let gap = shortest; gap <= Math.round(period * 2); gap++) {
    costs.push(-TIGHTNESS * Math.log(gap / period) ** 2);
  }
  for (let n = 0; n < curve.length; n++) {
    let best = 0;
    for (let g = 0; g < costs.length && shortest + g <= n; g++) {
      const total = score[n - shortest - g] + costs[g];
      if (total > best) {
        best = total;
        back[n] = n - shortest - g;
      }
    }
    score[n] = curve[n] + best;
  }
  let at = score.length - 1;
  for (let n = Math.max(0, score.length - Math.round(period)); n < score.length; n++) {
    if (score[n] > score[at]) at = n;
  }
  const frames: number[] = [];
  for (; at >= 0; at = back[at]) frames.push(at);
  return frames.reverse();
}

/**
 * Evens out what the frames rounded, and what an attack beside the pulse pulled away: each instant is moved to the
 * line through its neighbours.
 */
function smooth(times: readonly number[]): number[] {
  const REACH = 4;
  return times.map((_, k) => {
    const from = Math.max(0, k - REACH);
    const to = Math.min(times.length - 1, k + REACH);
    const count = to - from + 1;
    if (count < 3) return times[k];
    let [meanX, meanY] = [0, 0];
    for (let i = from; i <= to; i++) [meanX, meanY] = [meanX + i / count, meanY + times[i] / count];
    let [xy, xx] = [0, 0];
    for (let i = from; i <= to; i++) {
      xy += (i - meanX) * (times[i] - meanY);
      xx += (i - meanX) ** 2;
    }
    return meanY + (xy / xx) * (k - meanX);
  });
}

/** Follows the pulse outwards at the local tempo so that it covers [0, durationS]. */
export function extendPulse(timesS: readonly number[], durationS: number): number[] {
  const times = [...timesS];
  const edge = Math.min(16, times.length - 1);
  const first = (times[edge] - times[0]) / edge;
  const last = (times.at(-1)! - times[times.length - 1 - edge]) / edge;
  while (times[0] - first > 0) times.unshift(times[0] - first);
  while (times.at(-1)! + last < durationS) times.push(times.at(-1)! + last);
  return times;
}

/** Everything that attacks, as one curve of zero mean and unit variance. */
export function pulseCurve({ curves }: OnsetStrength): Float32Array {
  const mixed = new Float32Array(curves.body.length);
  for (let n = 0; n < mixed.length; n++) mixed[n] = curves.body[n] + curves.low[n] + 0.5 * curves.edge[n];
  return normalise(mixed);
}

/** Likely pulses, each over the whole recording; empty when there is nothing to follow (too short or silent). */
export function findPulses(strength: OnsetStrength, durationS: number): Pulse[] {
  const { frameRate, curves } = strength;
  if (curves.body.length < 4 * frameRate) return [];
  if (curves.body.reduce((m, v) => Math.max(m, v), 0) <= 0.02) return [];
  const curve = pulseCurve(strength);
  return candidatePeriods(curve, frameRate).flatMap((period) => {
    const frames = followPulse(curve, period);
    if (frames.length < 8) return [];
    const timesS = smooth(frames.map((n) => n / frameRate));
    return [{ periodS: period / frameRate, timesS: extendPulse(timesS, durationS) }];
  });
}
