/**
 * Another pitch by reading a sound faster or slower: band-limited interpolation with a windowed sinc (Smith and Gossett 1984, "A
 * flexible sampling-rate conversion method", ICASSP). Its length changes along, so a time stretcher has to give the time back: that
 * one leaves frequencies as they are, while a stretcher that shifts them itself is up to 31 cents off on low strings.
 */
import { hannWindow } from './window';

/** Zero crossings of the sinc to each side: a passband flat to 0.1 dB up to .85 of the half rate. */
const CROSSINGS = 16;
/** Positions between two samples that have a kernel of their own: the rest is noise under -65 dB at 5 kHz. */
const PHASES = 1024;

export interface PitchChange {
  /** Samples that `length` samples become. */
  lengthOf(length: number): number;
  /** Samples of the source that [from, to) of the result are read from; may begin before 0 and end behind the source. */
  sourceOf(from: number, to: number): { readonly from: number; readonly to: number };
  /** Samples [from, to) of the result; `source` holds what {@link sourceOf} says, with silence where there is none. */
  apply(source: Float32Array, from: number, to: number): Float32Array;
}

/** `ratio` of the frequencies: 2 = an octave up. Throws a RangeError for one that is not positive. */
export function createPitchChange(ratio: number): PitchChange {
  if (!(ratio > 0)) throw new RangeError(`ratio must be positive, but was ${ratio}`);
  // Read faster, what would lie over the half rate is cut off.
  const cutoff = Math.min(1, 1 / ratio);
  const half = Math.ceil(CROSSINGS / cutoff);
  const taps = 2 * half;
  const window = hannWindow(taps * PHASES);
  const kernels = Array.from({ length: PHASES }, (_, phase) => {
    const kernel = new Float32Array(taps);
    for (let k = 0; k < taps; k++) {
      // From the place that is read to the sample, in samples.
      const at = k - half + 1 - phase / PHASES;
      const x = Math.PI * at * cutoff;
      const sinc = x === 0 ? 1 : Math.sin(x) / x;
      kernel[k] = cutoff * sinc * window[Math.round((at + half) * PHASES) % (taps * PHASES)];
    }
    return kernel;
  });
  const sourceOf = (from: number, to: number): { from: number; to: number } => ({
    from: Math.floor(from * ratio) - half + 1,
    to: Math.floor((to - 1) * ratio) + half + 2,
  });
  return {
    lengthOf: (length) => Math.ceil(length / ratio),
    sourceOf,
    apply(source, from, to) {
      const start = sourceOf(from, to).from;
      const out = new Float32Array(to - from);
      for (let n = from; n < to; n++) {
        const at = n * ratio;
        let whole = Math.floor(at);
        let phase = Math.round((at - whole) * PHASES);
        if (phase === PHASES) [whole, phase] = [whole + 1, 0];
        const kernel = kernels[phase];
        const first = whole - half + 1 - start;
        let sum = 0;
        for (let k = 0; k < taps; k++) sum += kernel[k] * source[first + k];
        out[n - from] = sum;
      }
      return out;
    },
  };
}
