/**
 * What stands between an amplifier and a record, drawn at random: microphones near a loudspeaker, chorus and tape that
 * wavers, echoes. Each leaves its own dents and copies in a spectrum that a network must not take for notes or strokes.
 */
import { applyBiquad, lowPass, peaking, type Biquad } from '@wild-needle/core/dsp';
import type { Chance } from './chance';
import { SAMPLE_RATE } from './rates';

/** Narrow hills and dents of a loudspeaker, and the comb of two microphones at different distances. */
export function throughMicrophones(samples: Float32Array, chance: Chance): Float32Array {
  const hills: Biquad[] = [];
  const depth = chance.uniform(1, 4.5);
  for (let i = chance.whole(6, 14); i > 0; i--) {
    hills.push(
      peaking(chance.logUniform(90, 7000), SAMPLE_RATE, chance.logUniform(1.2, 9), chance.normal(0, depth)),
    );
  }
  const out = applyBiquad(samples, ...hills);
  if (chance.yes(0.5)) return out;
  const apart = Math.round(chance.logUniform(0.0002, 0.003) * SAMPLE_RATE);
  const share = chance.uniform(-0.6, 0.6);
  // From the end, so that what is added is not yet changed.
  for (let n = out.length - 1; n >= apart; n--) out[n] += share * out[n - apart];
  return out;
}

/** Mixes a copy in that wavers in time by `depthS`: 1 for a tape, half for a chorus. */
function waver(
  samples: Float32Array,
  depthS: number,
  rateHz: number,
  share: number,
  chance: Chance,
): Float32Array {
  const phase = chance.uniform(0, 2 * Math.PI);
  const turn = (2 * Math.PI * rateHz) / SAMPLE_RATE;
  const middle = (depthS + 0.0005) * SAMPLE_RATE;
  const out = new Float32Array(samples.length);
  for (let n = 0; n < out.length; n++) {
    const at = Math.max(0, n - middle + depthS * SAMPLE_RATE * Math.sin(phase + turn * n));
    const i = Math.floor(at);
    const next = samples[Math.min(samples.length - 1, i + 1)];
    out[n] = (1 - share) * samples[n] + share * (samples[i] + (at - i) * (next - samples[i]));
  }
  return out;
}

export function chorus(samples: Float32Array, chance: Chance): Float32Array {
  return waver(
    samples,
    chance.uniform(0.0008, 0.004),
    chance.uniform(0.2, 2.5),
    chance.uniform(0.25, 0.5),
    chance,
  );
}

/** A machine that does not run evenly: pitch that moves by some cents, twice a second or slower. */
export function wow(samples: Float32Array, chance: Chance): Float32Array {
  const rateHz = chance.uniform(0.3, 2);
  const cents = chance.uniform(1, 7);
  // The rate of change of the delay is the change of the speed: depth * 2 pi * rate = cents * ln 2 / 1200.
  return waver(samples, (cents * Math.LN2) / 1200 / (2 * Math.PI * rateHz), rateHz, 1, chance);
}

/** Repeats that get duller; most keep to the beat. */
export function echo(samples: Float32Array, beatS: number, chance: Chance): Float32Array {
  const delayS = chance.yes(0.6) ? beatS * chance.pick([0.5, 0.75, 1]) : chance.uniform(0.07, 0.5);
  const delay = Math.round(delayS * SAMPLE_RATE);
  const again = chance.uniform(0.05, 0.45);
  const wet = chance.logUniform(0.05, 0.4);
  const dull = applyBiquad(samples, lowPass(chance.logUniform(1500, 6000), SAMPLE_RATE));
  const repeats = new Float32Array(samples.length);
  for (let n = delay; n < samples.length; n++) repeats[n] = dull[n - delay] + again * repeats[n - delay];
  for (let n = 0; n < repeats.length; n++) repeats[n] = samples[n] + wet * repeats[n];
  return repeats;
}
