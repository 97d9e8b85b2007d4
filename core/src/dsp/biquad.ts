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

/**
 * What a filter still remembers below this, 600 dB under full scale, is forgotten. In silence it would shrink on to numbers
 * that processors work with ten times more slowly (subnormal ones, IEEE 754).
 */
const FORGOTTEN = 1e-30;
/** Asked once in so many samples, a power of two: seldom enough to cost nothing, and before numbers get that small. */
const ASKED_EACH = 256;

/** Filters the whole signal from rest through all of these, one after the other, into a new array. */
export function applyBiquad(samples: Float32Array, ...filters: readonly Biquad[]): Float32Array {
  let signal = samples;
  for (let i = 0; i + 1 < filters.length; i += 2) signal = applyPair(signal, filters[i], filters[i + 1]);
  if (filters.length % 2 === 1) signal = applyOne(signal, filters[filters.length - 1]);
  return signal === samples ? samples.slice() : signal;
}

function applyOne(samples: Float32Array, { b0, b1, b2, a1, a2 }: Biquad): Float32Array {
  const out = new Float32Array(samples.length);
  let z1 = 0;
  let z2 = 0;
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i];
    const y = b0 * x + z1;
    z1 = b1 * x - a1 * y + z2;
    z2 = b2 * x - a2 * y;
    out[i] = y;
    if (i % ASKED_EACH === 0 && Math.abs(z1) + Math.abs(z2) < FORGOTTEN) z1 = z2 = 0;
  }
  return out;
}

/** Two at a time: each waits for its own last sample, so that a processor does both in little more than the time of one. */
function applyPair(samples: Float32Array, first: Biquad, second: Biquad): Float32Array {
  const { b0, b1, b2, a1, a2 } = first;
  const { b0: c0, b1: c1, b2: c2, a1: d1, a2: d2 } = second;
  const out = new Float32Array(samples.length);
  let [z1, z2, w1, w2] = [0, 0, 0, 0];
  for (let i = 0; i < samples.length; i++) {
    const x = samples[i];
    const y = b0 * x + z1;
    z1 = b1 * x - a1 * y + z2;
    z2 = b2 * x - a2 * y;
    // As exact as if it had been kept in an array between.
    const u = Math.fround(y);
    const v = c0 * u + w1;
    w1 = c1 * u - d1 * v + w2;
    w2 = c2 * u - d2 * v;
    out[i] = v;
    if (i % ASKED_EACH === 0) {
      if (Math.abs(z1) + Math.abs(z2) < FORGOTTEN) z1 = z2 = 0;
      if (Math.abs(w1) + Math.abs(w2) < FORGOTTEN) w1 = w2 = 0;
    }
  }
  return out;
}
