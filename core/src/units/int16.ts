/** Samples of 16 bits and floats from -1 to 1, side by side. */

/** What 16 bits hold at full scale. */
export const FULL_SCALE = 32767;

/** Clipped at `loudest`, which becomes full scale; NaN becomes silence. */
export function toInt16(samples: Float32Array, loudest = 1): Int16Array {
  const out = new Int16Array(samples.length);
  const scale = FULL_SCALE / loudest;
  for (let n = 0; n < out.length; n++) {
    out[n] = Math.round(scale * Math.max(-loudest, Math.min(loudest, samples[n])));
  }
  return out;
}

/** The inverse, to the last of the 16 bits. */
export function toFloat(samples: Int16Array, loudest = 1): Float32Array {
  const out = new Float32Array(samples.length);
  const scale = loudest / FULL_SCALE;
  for (let n = 0; n < out.length; n++) out[n] = scale * samples[n];
  return out;
}
