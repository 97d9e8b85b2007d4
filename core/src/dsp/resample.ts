/**
 * Another sample rate for a short part of a sound, for measuring its spectrum: low-passed under the new half rate, then read
 * between the samples by straight lines. Lines cost under a decibel at a sixth of the rate, which is all that is looked at.
 */
import { applyBiquad, lowPass } from './biquad';

/** Share of the new rate that is kept. */
const PASS = 0.42;

export function resample(samples: Float32Array, fromRate: number, toRate: number): Float32Array {
  if (fromRate === toRate) return samples;
  const filter = lowPass(Math.min(PASS * toRate, PASS * fromRate), fromRate);
  const smooth = toRate < fromRate ? applyBiquad(samples, filter, filter) : samples;
  const step = fromRate / toRate;
  const out = new Float32Array(Math.floor((samples.length - 1) / step) + 1);
  for (let n = 0; n < out.length; n++) {
    const at = n * step;
    const i = Math.floor(at);
    const next = smooth[i + 1] ?? smooth[i];
    out[n] = smooth[i] + (at - i) * (next - smooth[i]);
  }
  return out;
}
