/** Samples of 16 bits and floats from -1 to 1, side by side. */

/** What 16 bits hold at full scale. */
export const FULL_SCALE = 32767;

/** The whole number of 16 bits that a sample is nearest to, clipped at full scale. */
export function sampleOf(value: number): number {
  const clipped = value > 1 ? 1 : value < -1 ? -1 : value;
  return Math.floor(FULL_SCALE * clipped + 0.5);
}

/** Clipped at full scale; NaN becomes silence. */
export function toInt16(samples: ArrayLike<number>): Int16Array<ArrayBuffer> {
  const out = new Int16Array(samples.length);
  for (let n = 0; n < out.length; n++) out[n] = sampleOf(samples[n]);
  return out;
}

/** The inverse, to the last of the 16 bits. */
export function toFloat(samples: Int16Array): Float32Array {
  const out = new Float32Array(samples.length);
  for (let n = 0; n < out.length; n++) out[n] = samples[n] / FULL_SCALE;
  return out;
}
