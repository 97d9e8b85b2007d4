/**
 * Second-order filters, direct form II transposed. Coefficients from Robert Bristow-Johnson,
 * "Cookbook formulae for audio EQ biquad filter coefficients" (W3C Note, 2021).
 */
export interface Biquad {
  readonly b0: number;
  readonly b1: number;
  readonly b2: number;
  readonly a1: number;
  readonly a2: number;
}

/** Quality factor of a maximally flat (Butterworth) second-order section. */
export const BUTTERWORTH_Q = Math.SQRT1_2;

function normalise(b0: number, b1: number, b2: number, a0: number, a1: number, a2: number): Biquad {
  return { b0: b0 / a0, b1: b1 / a0, b2: b2 / a0, a1: a1 / a0, a2: a2 / a0 };
}

export function lowPass(freqHz: number, sampleRate: number, q = BUTTERWORTH_Q): Biquad {
  const w = (2 * Math.PI * freqHz) / sampleRate;
  const alpha = Math.sin(w) / (2 * q);
  const c = Math.cos(w);
  return normalise((1 - c) / 2, 1 - c, (1 - c) / 2, 1 + alpha, -2 * c, 1 - alpha);
}

export function highPass(freqHz: number, sampleRate: number, q = BUTTERWORTH_Q): Biquad {
  const w = (2 * Math.PI * freqHz) / sampleRate;
  const alpha = Math.sin(w) / (2 * q);
  const c = Math.cos(w);
  return normalise((1 + c) / 2, -(1 + c), (1 + c) / 2, 1 + alpha, -2 * c, 1 - alpha);
}

export function peaking(freqHz: number, sampleRate: number, q: number, gainDb: number): Biquad {
  const w = (2 * Math.PI * freqHz) / sampleRate;
  const alpha = Math.sin(w) / (2 * q);
  const c = Math.cos(w);
  const a = 10 ** (gainDb / 40);
  return normalise(1 + alpha * a, -2 * c, 1 - alpha * a, 1 + alpha / a, -2 * c, 1 - alpha / a);
}

/** Filters the whole signal from rest into a new array. */
export function applyBiquad(samples: Float32Array, { b0, b1, b2, a1, a2 }: Biquad): Float32Array {
  const out = new Float32Array(samples.length);
  let z1 = 0;
  let z2 = 0;
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i];
    const y = b0 * x + z1;
    z1 = b1 * x - a1 * y + z2;
    z2 = b2 * x - a2 * y;
    out[i] = y;
  }
  return out;
}
