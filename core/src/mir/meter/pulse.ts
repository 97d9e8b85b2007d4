/**
 * The finest regular pulse of a recording: which periods the attacks repeat with (autocorrelation), and for each the
 * chain of instants that follows it through drift (dynamic programming at the local tempo; Ellis 2007, "Beat tracking by dynamic
 * programming", Journal of New Music Research 36). Tracked at the level of eighth notes: tracked at quarters, a snare
 * on the off-beats pulls the chain half a beat away.
 */
import { fitLine } from '../../units';
import { parabolicPeak } from '../../dsp';
import type { OnsetStrength } from '../onsets/onset-strength';
import { soundingStretches } from './stretches';

/** Eighths at 230 bpm, and triplet eighths at 45. */
const SHORTEST_S = 0.125;
const LONGEST_S = 0.65;
const CANDIDATES = 7;
/** How strictly the pulse keeps its period; Ellis's alpha, for a curve of unit variance. */
const TIGHTNESS = 400;
/** Tempo is looked for in windows this long, so often, in steps of this share up to so many to each side. */
const TEMPO_WINDOW_S = 10;
const TEMPO_HOP_S = 2;
const TEMPO_STEP = 0.015;
const TEMPO_STEPS = 12;
/** A quarter of pulses and its multiples: short lags alone can't tell neighbouring tempi apart. */
const TEMPO_MULTIPLES = [2, 4, 8];
/** What a step of tempo must gain, in correlation of a curve of unit variance. */
const TEMPO_CHANGE_COST = 0.15;
/** A tempo that moves by less over the song is followed from its one period, which is measured more exactly. */
const TEMPO_MOVES = 1.05;
/** The first attack of a stretch rises from here on. */
const LEAD_S = 0.1;
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

/**
 * Products of the curve with itself `lag` frames later, summed up to each multiple of `hop`: the correlation of any part of
 * whole hops is then a difference of two. One row per lag from 0 to `longest`.
 */
function correlationSums(curve: Float32Array, longest: number, hop: number): Float64Array[] {
  const hops = Math.ceil(curve.length / hop);
  return Array.from({ length: longest + 1 }, (_, lag) => {
    const sums = new Float64Array(hops + 1);
    for (let h = 0; h < hops; h++) {
      let sum = 0;
      const end = Math.min((h + 1) * hop, curve.length - lag);
      for (let n = h * hop; n < end; n++) sum += curve[n] * curve[n + lag];
      sums[h + 1] = sums[h] + sum;
    }
    return sums;
  });
}

/** Periods in frames, most likely first. */
function candidatePeriods(sums: readonly Float64Array[], frames: number, frameRate: number): number[] {
  const shortest = Math.floor(SHORTEST_S * frameRate);
  const longest = Math.ceil(LONGEST_S * frameRate);
  const correlation = sums.map((ofLag, lag) => ofLag[ofLag.length - 1] / Math.max(1, frames - lag));
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

/**
 * The period as it changes over the song, one value per window: the factor to `period` that local autocorrelation likes
 * best, changing by at most one step from window to window (dynamic programming). `sums` of {@link correlationSums}, a hop
 * of TEMPO_HOP_S.
 */
function localPeriods(sums: readonly Float64Array[], hop: number, period: number): number[] {
  const hops = sums[0].length - 1;
  const windowHops = Math.min(hops, Math.round(TEMPO_WINDOW_S / TEMPO_HOP_S));
  const windows = hops - windowHops + 1;
  const factors = Array.from(
    { length: 2 * TEMPO_STEPS + 1 },
    (_, j) => (1 + TEMPO_STEP) ** (j - TEMPO_STEPS),
  );
  let scores = new Float64Array(factors.length);
  const back: Int8Array[] = [];
  for (let w = 0; w < windows; w++) {
    const correlate = (lag: number): number => {
      const whole = Math.floor(lag);
      const [here, next] = [sums[whole], sums[whole + 1]];
      const sum = here[w + windowHops] - here[w];
      return sum + (lag - whole) * (next[w + windowHops] - next[w] - sum);
    };
    // Per frame, as the cost of a change of tempo is.
    const own = factors.map(
      (f) => TEMPO_MULTIPLES.reduce((sum, m) => sum + correlate(m * f * period), 0) / (windowHops * hop),
    );
    const came = new Int8Array(factors.length);
    scores = Float64Array.from(own, (value, j) => {
      let best = scores[j];
      for (const step of [-1, 1]) {
        const before = scores[j + step];
        if (before !== undefined && before - TEMPO_CHANGE_COST > best) {
          best = before - TEMPO_CHANGE_COST;
          came[j] = step;
        }
      }
      return best + value;
    });
    back.push(came);
  }
  let at = scores.indexOf(scores.reduce((m, v) => Math.max(m, v), -Infinity));
  const path = new Array<number>(windows);
  for (let w = windows - 1; w >= 0; w--) {
    path[w] = factors[at] * period;
    at += back[w][at];
  }
  return path;
}

/** Ellis's recursion: the best chain of frames about one local period apart through high onset strength. */
function followPulse(curve: Float32Array, periods: readonly number[], frameRate: number): number[] {
  const score = new Float32Array(curve.length);
  const back = new Int32Array(curve.length).fill(-1);
  const hop = Math.round(TEMPO_HOP_S * frameRate);
  const half = Math.round((TEMPO_WINDOW_S * frameRate) / 2);
  let [period, shortest] = [0, 0];
  let costs: number[] = [];
  for (let n = 0; n < curve.length; n++) {
    const local = periods[Math.max(0, Math.min(periods.length - 1, Math.round((n - half) / hop)))];
    if (local !== period) {
      period = local;
      shortest = Math.round(period / 2);
      costs = [];
      for (let gap = shortest; gap <= Math.round(period * 2); gap++) {
        costs.push(-TIGHTNESS * Math.log(gap / period) ** 2);
      }
    }
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
  const lastPeriod = periods[periods.length - 1];
  let at = score.length - 1;
  for (let n = Math.max(0, score.length - Math.round(lastPeriod)); n < score.length; n++) {
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
    return fitLine(times, from, to).at(k);
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

/** Chains on both sides of a silence as one: through the silence the pulse is counted on as evenly as it fits. */
function joined(chains: readonly (readonly number[])[], periodS: number): number[] {
  const all: number[] = [];
  for (const chain of chains) {
    const last = all.at(-1);
    const [first] = chain;
    if (last !== undefined && first !== undefined) {
      const steps = Math.max(1, Math.round((first - last) / periodS));
      for (let k = 1; k < steps; k++) all.push(last + (k * (first - last)) / steps);
    }
    all.push(...chain);
  }
  return all;
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
  const sounding = soundingStretches(strength);
  // From one to the next; what is silent in between is followed with the one before.
  const stretches = sounding.map(({ startS }, i) => [
    i === 0 ? 0 : Math.round((startS - LEAD_S) * frameRate),
    i + 1 < sounding.length ? Math.round((sounding[i].endS + LEAD_S) * frameRate) : curve.length,
  ]);
  const hop = Math.round(TEMPO_HOP_S * frameRate);
  const slowest = Math.ceil(LONGEST_S * frameRate) * (1 + TEMPO_STEP) ** TEMPO_STEPS;
  const sums = correlationSums(curve, Math.ceil(Math.max(...TEMPO_MULTIPLES) * slowest) + 1, hop);
  return candidatePeriods(sums, curve.length, frameRate).flatMap((period) => {
    const local = localPeriods(sums, hop, period);
    const moves = Math.max(...local) / Math.min(...local) > TEMPO_MOVES;
    const chains = stretches.map(([from, to]) => {
      const periods = moves ? local.slice(Math.min(local.length - 1, Math.floor(from / hop))) : [period];
      return smooth(
        followPulse(curve.subarray(from, to), periods, frameRate).map((n) => (from + n) / frameRate),
      );
    });
    const timesS = joined(chains, period / frameRate);
    if (timesS.length < 8) return [];
    return [{ periodS: period / frameRate, timesS: extendPulse(timesS, durationS) }];
  });
}
