/** Samples of 16 bits and floats from -1 to 1, side by side. */

/** What 16 bits hold at full scale. */
export const FULL_SCALE = 32767;

/** Clipped at full scale; NaN becomes silence. */
export function toInt16(samples: ArrayLike<number>): Int16Array<ArrayBuffer> {
  const out = new Int16Array(samples.length);
  for (let n = 0; n < out.length; n++) {
    out[n] = Math.round(FULL_SCALE * Math.max(-1, Math.min(1, samples[n])));
  }
  return out;
}

/** The inverse, to the last of the 16 bits. */
export function toFloat(samples: Int16Array): Float32Array {
  const out = new Float32Array(samples.length);
  for (let n = 0; n < out.length; n++) out[n] = samples[n] / FULL_SCALE;
  return out;
}
