/**
 * A plucked string by the extended Karplus–Strong algorithm (Karplus and Strong 1983; Jaffe and Smith 1983,
 * "Extensions of the Karplus-Strong plucked-string algorithm", Computer Music Journal 7(2)): a delay line as
 * long as the period, a damping filter in its loop, a first-order allpass for the fraction of a sample, and a
 * pick position that takes out the partials with a node there.
 */
import type { Random } from '../units';
import type { PitchPoint } from '../riff';

export interface Pluck {
  readonly freqHz: number;
  readonly durationS: number;
  /** 0 to 1. */
  readonly level: number;
  readonly palmMute: boolean;
  /** How its pitch moves, as a bend or a slide does; see `movedPitch`. */
  readonly moves?: readonly PitchPoint[];
}

/** Where the pick strikes, as a share of the string: near the bridge, as rhythm players do. */
const PICK_POSITION = 0.14;
/** Time for a ringing string to fall by 60 dB, and under the palm. */
const RING_T60_S = 6;
const MUTE_T60_S = 0.35;
/** Share of the new sample in the loop's averaging filter: less is darker. */
const RING_BRIGHTNESS = 0.96;
const MUTE_BRIGHTNESS = 0.72;
/** The fretting hand stops a string within this time, without a click. */
const RELEASE_S = 0.008;

/** Semitones away from the struck note at a time after the stroke: straight lines between the points. */
export function movedPitch(moves: readonly PitchPoint[], afterS: number): number {
  const next = moves.findIndex((m) => m.afterS > afterS);
  if (next === 0) return moves[0].semitones;
  if (next < 0) return moves.at(-1)?.semitones ?? 0;
  const [from, to] = [moves[next - 1], moves[next]];
  return (
    from.semitones + ((to.semitones - from.semitones) * (afterS - from.afterS)) / (to.afterS - from.afterS)
  );
}

/**
 * Adds the string to `out` from `startSample` on; what does not fit is left out. A string that is bent or slid is read at a
 * moving speed, so that its partials stay together.
 */
export function addPluck(
  out: Float32Array,
  startSample: number,
  sampleRate: number,
  pluck: Pluck,
  random: Random,
): void {
  const { moves = [], durationS } = pluck;
  if (moves.length === 0) {
    addSteadyPluck(out, startSample, sampleRate, pluck, random);
    return;
  }
  const samples = Math.min(Math.round((durationS + RELEASE_S) * sampleRate), out.length - startSample);
  // The speed is looked up every few samples: it changes slowly.
  const speeds = Array.from(
    { length: Math.ceil(Math.max(0, samples) / SPEED_STEP) },
    (_, i) => 2 ** (movedPitch(moves, (i * SPEED_STEP) / sampleRate) / 12),
  );
  const travelled = speeds.reduce((sum, s) => sum + s * SPEED_STEP, 2);
  const steady = new Float32Array(Math.ceil(travelled) + 2);
  addSteadyPluck(steady, 0, sampleRate, { ...pluck, durationS: travelled / sampleRate }, random);
  const releaseFrom = Math.round(durationS * sampleRate);
  let at = 0;
  for (let n = 0; n < samples; n++) {
    const i = Math.floor(at);
    const value = steady[i] + (at - i) * (steady[i + 1] - steady[i]);
    const release = n < releaseFrom ? 1 : 1 - (n - releaseFrom) / (RELEASE_S * sampleRate);
    out[startSample + n] += value * Math.max(0, release);
    at += speeds[Math.floor(n / SPEED_STEP)];
  }
}

/** Samples between looks at the moving pitch: under a millisecond. */
const SPEED_STEP = 32;

function addSteadyPluck(
  out: Float32Array,
  startSample: number,
  sampleRate: number,
  { freqHz, durationS, level, palmMute }: Pluck,
  random: Random,
): void {
  const brightness = palmMute ? MUTE_BRIGHTNESS : RING_BRIGHTNESS;
  // The loop filter b*x[n] + (1-b)*x[n-1] delays by (1-b) samples at low frequencies.
  const period = sampleRate / freqHz - (1 - brightness);
  const length = Math.floor(period - 0.3);
  const fraction = period - length;
  const allpass = (1 - fraction) / (1 + fraction);
  const lossPerPeriod = 10 ** (-3 / (freqHz * (palmMute ? MUTE_T60_S : RING_T60_S)));

  const noise = Float32Array.from({ length }, () => 2 * random() - 1);
  const pick = Math.max(1, Math.round(length * PICK_POSITION));
  const line = new Float32Array(length);
  let previous = 0;
  for (let i = 0; i < length; i++) {
    const combed = noise[i] - noise[(i - pick + length) % length];
    previous = 0.55 * combed + 0.45 * previous;
    line[i] = level * previous;
  }

  const samples = Math.min(Math.round((durationS + RELEASE_S) * sampleRate), out.length - startSample);
  const releaseFrom = Math.round(durationS * sampleRate);
  let at = 0;
  let filterMemory = 0;
  let allpassIn = 0;
  let allpassOut = 0;
  for (let n = 0; n < samples; n++) {
    const x = line[at];
    const damped = lossPerPeriod * (brightness * x + (1 - brightness) * filterMemory);
    filterMemory = x;
    allpassOut = allpass * damped + allpassIn - allpass * allpassOut;
    allpassIn = damped;
    line[at] = allpassOut;
    at = at + 1 === length ? 0 : at + 1;
    const release = n < releaseFrom ? 1 : 1 - (n - releaseFrom) / (RELEASE_S * sampleRate);
    out[startSample + n] += x * Math.max(0, release);
  }
}

/** The click of the pick crossing damped strings: a dead stroke. */
export function addDeadStroke(
  out: Float32Array,
  startSample: number,
  sampleRate: number,
  level: number,
  random: Random,
): void {
  const samples = Math.min(Math.round(0.05 * sampleRate), out.length - startSample);
  let low = 0;
  for (let n = 0; n < samples; n++) {
    low += 0.25 * (2 * random() - 1 - low);
    out[startSample + n] += level * low * Math.exp(-n / (0.009 * sampleRate)) * Math.min(1, n / 30);
  }
}
