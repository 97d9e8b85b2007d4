/**
 * Spectra of real signals: a Hann-windowed FFT with its scratch memory kept in one object.
 * Wraps `fft.js` (radix-4), so that the rest of the core sees typed arrays only. A real signal takes a complex transform
 * of half its length (Press et al., "Numerical Recipes", 3rd ed. 2007, section 12.3), a third faster than the one of fft.js.
 */
import FFT from 'fft.js';
import { hannWindow } from './window';

export interface SpectrumAnalyser {
  readonly size: number;
  /** `size / 2 + 1` bins, bin k = k * sampleRate / size. */
  readonly bins: number;
  /**
   * Writes the magnitudes of `samples[start, start + length)` into `out` (`bins` long). What lies outside
   * of the samples counts as silence; a `length` under `size` is zero-padded after windowing.
   * A full-scale sine reads 1 at its bin.
   */
  magnitudes(samples: Float32Array, start: number, out: Float32Array, length?: number): void;
  /** The same with its phases, that of `start` as zero: real and imaginary parts, `bins` values each. */
  spectrum(samples: Float32Array, start: number, re: Float32Array, im: Float32Array): void;
}

const ANALYSERS = new Map<number, SpectrumAnalyser>();

/** One for each size, made once: its tables cost as much as some spectra, and its scratch memory is used within a call only. */
export function spectrumAnalyserOf(size: number): SpectrumAnalyser {
  const before = ANALYSERS.get(size) ?? createAnalyser(size);
  ANALYSERS.set(size, before);
  return before;
}

function createAnalyser(size: number): SpectrumAnalyser {
  const half = size / 2;
  const fft = new FFT(half);
  // fft.js asks for arrays; typed ones do as well and are faster.
  const input = new Float64Array(size) as unknown as number[];
  const output = new Float64Array(size) as unknown as number[];
  const bins = half + 1;
  const parts = { re: new Float64Array(bins), im: new Float64Array(bins) };
  const cosines = Float64Array.from({ length: bins }, (_, k) => Math.cos((2 * Math.PI * k) / size));
  const sines = Float64Array.from({ length: bins }, (_, k) => Math.sin((2 * Math.PI * k) / size));
  const windows = new Map<number, Float32Array>();

  const windowOf = (length: number): Float32Array => {
    let window = windows.get(length);
    if (window === undefined) windows.set(length, (window = hannWindow(length)));
    return window;
  };

  /** Even samples as real, odd ones as imaginary parts of a transform of half the size. */
  const transform = (samples: Float32Array, start: number, used: number): void => {
    const window = windowOf(used);
    const from = Math.min(used, Math.max(0, -start));
    const to = Math.max(from, Math.min(used, samples.length - start));
    input.fill(0, 0, from);
    for (let i = from; i < to; i++) input[i] = samples[start + i] * window[i];
    input.fill(0, to);
    fft.transform(output, input);
  };
  /** Takes the transform apart, bins `k` and `half - k` together: they are made of the same two numbers. */
  const takeApart = (scale: number): void => {
    for (let k = 0; 2 * k <= half; k++) {
      const a = 2 * k;
      const b = k === 0 ? 0 : 2 * (half - k);
      const evenRe = scale * (output[a] + output[b]);
      const evenIm = scale * (output[a + 1] - output[b + 1]);
      const oddRe = scale * (output[a + 1] + output[b + 1]);
      const oddIm = scale * (output[b] - output[a]);
      const turnedRe = cosines[k] * oddRe + sines[k] * oddIm;
      const turnedIm = cosines[k] * oddIm - sines[k] * oddRe;
      parts.re[k] = evenRe + turnedRe;
      parts.im[k] = evenIm + turnedIm;
      parts.re[half - k] = evenRe - turnedRe;
      parts.im[half - k] = turnedIm - evenIm;
    }
  };
  const check = (out: Float32Array): void => {
    if (out.length !== bins) throw new RangeError(`out must have ${bins} bins, but has ${out.length}`);
  };
  // A Hann window has a mean of 1/2 and a sine splits over two bins: 4 / length restores amplitude 1.
  const scaleOf = (used: number): number => 2 / used;

  return {
    size,
    bins,
    magnitudes(samples, start, out, length = size) {
      check(out);
      const used = Math.min(length, size);
      transform(samples, start, used);
      takeApart(scaleOf(used));
      const { re, im } = parts;
      for (let k = 0; k < bins; k++) out[k] = Math.sqrt(re[k] * re[k] + im[k] * im[k]);
    },
    spectrum(samples, start, re, im) {
      check(re);
      check(im);
      transform(samples, start, size);
      takeApart(scaleOf(size));
      re.set(parts.re);
      im.set(parts.im);
    },
  };
}
