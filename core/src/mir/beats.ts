/**
 * Tempo and beats: the autocorrelation of the onset strength under a log-normal tempo prior gives the beat
 * period, dynamic programming places the beats (Ellis 2007, "Beat tracking by dynamic programming",
 * J. New Music Research 36). Which of the half-beat shifts is the beat is decided afterwards by the low end
 * (kick, bass) and the strums, since a snare on the off-beats pulls the tracker to them.
 */
import { parabolicPeak } from '../dsp';
import type { OnsetStrength } from './onset-strength';

/** Centre and width (octaves) of the tempo prior; rock songs lie at 70 to 190 bpm. Ellis uses 120 and 0.9. */
const PRIOR_BPM = 120;
const PRIOR_OCTAVES = 0.7;
const MIN_BPM = 50;
const MAX_BPM = 220;
/** How strictly beats keep the period; Ellis's alpha, for a curve of unit variance. */
const TIGHTNESS = 400;

export interface BeatTrack {
  readonly tempoBpm: number;
  readonly beatsS: readonly number[];
}

/** Mean-free, unit variance; negative parts stay so that silence does not attract beats. */
function normalise(curve: Float32Array): Float32Array {
  const mean = curve.reduce((s, v) => s + v, 0) / curve.length;
  const deviation = Math.sqrt(curve.reduce((s, v) => s + (v - mean) ** 2, 0) / curve.length) || 1;
  return curve.map((v) => (v - mean) / deviation);
}

/** Beat period in frames, refined between frames. */
function estimatePeriod(curve: Float32Array, frameRate: number): number {
  const shortest = Math.floor((60 / MAX_BPM) * frameRate);
  const longest = Math.ceil((60 / MIN_BPM) * frameRate);
  const correlation = new Float32Array(4 * longest + 2);
  for (let lag = 1; lag < correlation.length; lag++) {
    let sum = 0;
    for (let n = lag; n < curve.length; n++) sum += curve[n] * curve[n - lag];
    correlation[lag] = sum / Math.max(1, curve.length - lag);
  }
  let best = -Infinity;
  let period = shortest;
  for (let lag = shortest; lag <= longest; lag++) {
    // A beat also repeats after two and four beats: their support tells it from a dotted value.
    const support = correlation[lag] + 0.5 * correlation[2 * lag] + 0.5 * correlation[4 * lag];
    const octaves = Math.log2((60 * frameRate) / lag / PRIOR_BPM);
    const score = support * Math.exp(-0.5 * (octaves / PRIOR_OCTAVES) ** 2);
    if (score > best) [best, period] = [score, lag];
  }
  const { offset } = parabolicPeak(correlation[period - 1], correlation[period], correlation[period + 1]);
  return period + offset;
}

/** Ellis's recursion: the best chain of frames about one period apart through high onset strength. */
function trackBeats(curve: Float32Array, period: number): number[] {
  const score = new Float32Array(curve.length);
  const back = new Int32Array(curve.length).fill(-1);
  const penalties: { gap: number; cost: number }[] = [];
  for (let gap = Math.round(period / 2); gap <= Math.round(period * 2); gap++) {
    penalties.push({ gap, cost: -TIGHTNESS * Math.log(gap / period) ** 2 });
  }
  for (let n = 0; n < curve.length; n++) {
    let best = 0;
    for (const { gap, cost } of penalties) {
      if (gap > n) break;
      const total = score[n - gap] + cost;
      if (total > best) [best, back[n]] = [total, n - gap];
    }
    score[n] = curve[n] + best;
  }
  let at = score.length - 1;
  for (let n = Math.max(0, score.length - Math.round(period)); n < score.length; n++) {
    if (score[n] > score[at]) at = n;
  }
  const beats: number[] = [];
  for (; at >= 0; at = back[at]) beats.unshift(at);
  return beats;
}

/** Value at a fractional frame with a little tolerance: the largest of the frames around it. */
function around(curve: Float32Array, frame: number): number {
  const n = Math.round(frame);
  return Math.max(curve[n - 2] ?? 0, curve[n - 1] ?? 0, curve[n] ?? 0, curve[n + 1] ?? 0, curve[n + 2] ?? 0);
}

/** Null when the recording has no pulse to follow (too short or silent). */
export function trackTempo({ frameRate, curves }: OnsetStrength): BeatTrack | null {
  if (curves.body.length < 4 * frameRate) return null;
  const mixed = new Float32Array(curves.body.length);
  for (let n = 0; n < mixed.length; n++) mixed[n] = curves.body[n] + curves.low[n] + 0.5 * curves.edge[n];
  if (Math.max(...curves.body.subarray(0, 1e5)) <= 0.02) return null;
  const curve = normalise(mixed);
  const period = estimatePeriod(curve, frameRate);
  let frames = trackBeats(curve, period);
  if (frames.length < 4) return null;

  const low = normalise(curves.low);
  const body = normalise(curves.body);
  const strengthOf = (places: readonly number[]): number =>
    places.reduce((sum, n) => sum + around(low, n) + 0.6 * around(body, n), 0) / places.length;
  const shifted = frames.slice(1).map((n, i) => (n + frames[i]) / 2);
  if (strengthOf(shifted) > 1.15 * strengthOf(frames)) frames = shifted;

  const beatsS = frames.map((n) => n / frameRate);
  const gaps = beatsS.slice(1).map((t, i) => t - beatsS[i]);
  const middle = gaps
    .sort((a, b) => a - b)
    .slice(Math.floor(gaps.length / 4), Math.ceil((3 * gaps.length) / 4));
  const tempoBpm = 60 / (middle.reduce((s, g) => s + g, 0) / middle.length);
  return { tempoBpm, beatsS };
}

/** Follows the beats outwards at the local tempo so that the grid covers [0, durationS]. */
export function extendBeats(beatsS: readonly number[], durationS: number): number[] {
  const beats = [...beatsS];
  const edge = Math.min(8, beats.length - 1);
  const firstPeriod = (beats[edge] - beats[0]) / edge;
  const lastPeriod = (beats.at(-1)! - beats[beats.length - 1 - edge]) / edge;
  while (beats[0] - firstPeriod > 0) beats.unshift(beats[0] - firstPeriod);
  while (beats.at(-1)! + lastPeriod < durationS) beats.push(beats.at(-1)! + lastPeriod);
  return beats;
}
