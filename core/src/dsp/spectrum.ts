/**
 * Magnitude spectra of real signals: a Hann-windowed FFT with its scratch memory kept in one object.
 * Wraps `fft.js` (radix-4), so that the rest of the core sees typed arrays only.
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
}

export function createSpectrumAnalyser(size: number): SpectrumAnalyser {
  const fft = new FFT(size);
  const input = Array.from({ length: size }, () => 0);
  const output = fft.createComplexArray() as number[];
  const bins = size / 2 + 1;
  const windows = new Map<number, Float32Array>();

  const windowOf = (length: number): Float32Array => {
    let window = windows.get(length);
    if (window === undefined) windows.set(length, (window = hannWindow(length)));
    return window;
  };

  return {
    size,
    bins,
    magnitudes(samples, start, out, length = size) {
      if (out.length !== bins) throw new RangeError(`out must have ${bins} bins, but has ${out.length}`);
      const used = Math.min(length, size);
      const window = windowOf(used);
      const from = Math.min(used, Math.max(0, -start));
      const to = Math.max(from, Math.min(used, samples.length - start));
      input.fill(0, 0, from);
      for (let i = from; i < to; i++) input[i] = samples[start + i] * window[i];
      input.fill(0, to);
      fft.realTransform(output, input);
      // A Hann window has a mean of 1/2 and a sine splits over two bins: 4 / length restores amplitude 1.
      const scale = 4 / used;
      for (let k = 0; k < bins; k++) {
        const [re, im] = [output[2 * k], output[2 * k + 1]];
        out[k] = Math.sqrt(re * re + im * im) * scale;
      }
    },
  };
}
