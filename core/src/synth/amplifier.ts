/**
 * A guitar amplifier: tighten, drive into soft clipping, loudspeaker. The clipping acts on all strings together,
 * so that a fifth growls with its difference tone as it does on a record (Pakarinen and Yeh 2009, "A review of
 * digital techniques for modeling vacuum-tube guitar amplifiers", Computer Music Journal 33(2)).
 */
import { applyBiquad, highPass, lowPass, peaking } from '../dsp';

export interface AmplifierOptions {
  /** Gain before clipping: 1 = clean, 30 = high gain. */
  readonly drive: number;
}

/** Bias of the stage: unsymmetric clipping makes the even products of valves. */
const BIAS = 0.12;
/** Clipping is computed at twice the rate; what folds back is then under the loudspeaker's edge. */
const OVERSAMPLE = 2;

function upsample(samples: Float32Array, sampleRate: number): Float32Array {
  const up = new Float32Array(samples.length * OVERSAMPLE);
  for (let i = 0; i < samples.length; i++) up[i * OVERSAMPLE] = samples[i] * OVERSAMPLE;
  const filter = lowPass(sampleRate * 0.42, sampleRate * OVERSAMPLE);
  return applyBiquad(up, filter, filter);
}

/** Levels: in about ±1 at a hard strum, out about ±1. */
export function amplify(
  samples: Float32Array,
  sampleRate: number,
  { drive }: AmplifierOptions,
): Float32Array {
  const tight = applyBiquad(samples, highPass(90, sampleRate), peaking(750, sampleRate, 0.7, 5));
  const up = upsample(tight, sampleRate);
  const offset = Math.tanh(BIAS);
  for (let i = 0; i < up.length; i++) up[i] = Math.tanh(drive * up[i] + BIAS) - offset;
  const band = applyBiquad(up, lowPass(sampleRate * 0.42, sampleRate * OVERSAMPLE));
  const down = new Float32Array(samples.length);
  for (let i = 0; i < down.length; i++) down[i] = band[i * OVERSAMPLE];
  // A closed 12-inch cabinet: thump, a dip in the low middle, presence, and little above 5 kHz.
  return applyBiquad(
    down,
    highPass(80, sampleRate),
    peaking(115, sampleRate, 1.1, 3),
    peaking(430, sampleRate, 0.8, -4),
    peaking(2600, sampleRate, 1.2, 4),
    lowPass(5000, sampleRate),
    lowPass(6000, sampleRate),
  );
}
