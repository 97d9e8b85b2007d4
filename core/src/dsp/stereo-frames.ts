/**
 * Short-time spectra of a stereo sound that are changed and put together again. Both channels go through one complex transform, left
 * as its real and right as its imaginary part; since every bin is multiplied by a real gain they come out apart again.
 */
import FFT from 'fft.js';
import { hannWindow } from './window';

export const FRAME_SIZE = 4096;
export const FRAME_BINS = FRAME_SIZE / 2 + 1;

/**
 * How many frames lie over each sample. Four Hann windows, squared, add up to 1.5 and smear least; two sine windows, squared, add up to
 * 1 and cost half (Griffin and Lim 1984, "Signal estimation from modified short-time Fourier transform", IEEE Transactions on
 * Acoustics, Speech and Signal Processing 32).
 */
export type FrameOverlap = 2 | 4;

/** Powers of both channels in a bin, and how much of them is common. */
export interface BinLevels {
  left: number;
  right: number;
  both: number;
}

/** The spectrum of left + i right, real and imaginary parts in turn, `2 * FRAME_SIZE` values. */
export type StereoSpectrum = Float64Array;

export interface StereoFrames {
  /** Samples from one frame to the next. */
  readonly hop: number;
  /** Of the {@link FRAME_SIZE} samples from `at` on; what lies outside of the channels is silence. `into` is written over. */
  spectrum(channels: readonly Float32Array[], at: number, into?: StereoSpectrum): StereoSpectrum;
  /** Magnitudes of both channels together, {@link FRAME_BINS} values. */
  magnitudes(spectrum: StereoSpectrum): Float32Array;
  /** Levels of bin `k` into `levels`. */
  levelsOf(spectrum: StereoSpectrum, k: number, levels: BinLevels): void;
  /** Adds the frame, each bin by its gain, to `out`, whose first sample is `at` samples after the start of the frame; `at` may be negative. */
  add(spectrum: StereoSpectrum, gains: Float32Array, out: readonly Float32Array[], at: number): void;
}

const mirrorOf = (k: number): number => (k === 0 ? 0 : FRAME_SIZE - k);

/** Keeps its scratch memory; one for each block of work. */
export function createStereoFrames(overlap: FrameOverlap): StereoFrames {
  const fft = new FFT(FRAME_SIZE);
  const hann = hannWindow(FRAME_SIZE);
  const window = overlap === 4 ? hann : hann.map(Math.sqrt);
  const sum = overlap === 4 ? 1.5 : 1;
  const input = new Float64Array(2 * FRAME_SIZE);
  const inverse = new Float64Array(2 * FRAME_SIZE);
  // fft.js asks for arrays; typed ones do as well and are faster.
  const asArray = (values: Float64Array): number[] => values as unknown as number[];
  return {
    hop: FRAME_SIZE / overlap,
    spectrum([left, right], at, into = new Float64Array(2 * FRAME_SIZE)) {
      const from = Math.min(FRAME_SIZE, Math.max(0, -at));
      const to = Math.max(from, Math.min(FRAME_SIZE, left.length - at));
      input.fill(0, 0, 2 * from);
      for (let i = from; i < to; i++) {
        input[2 * i] = left[at + i] * window[i];
        input[2 * i + 1] = right[at + i] * window[i];
      }
      input.fill(0, 2 * to);
      fft.transform(asArray(into), asArray(input));
      return into;
    },
    magnitudes(spectrum) {
      const magnitudes = new Float32Array(FRAME_BINS);
      for (let k = 0; k < FRAME_BINS; k++) {
        const re = spectrum[2 * k];
        const im = spectrum[2 * k + 1];
        magnitudes[k] = Math.sqrt(re * re + im * im);
      }
      return magnitudes;
    },
    levelsOf(spectrum, k, levels) {
      const mirror = mirrorOf(k);
      // Spectra of the two real signals out of the one complex transform.
      const a = spectrum[2 * k];
      const b = spectrum[2 * k + 1];
      const c = spectrum[2 * mirror];
      const d = spectrum[2 * mirror + 1];
      const lre = (a + c) / 2;
      const lim = (b - d) / 2;
      const rre = (b + d) / 2;
      const rim = (c - a) / 2;
      levels.left = lre * lre + lim * lim;
      levels.right = rre * rre + rim * rim;
      levels.both = lre * rre + lim * rim;
    },
    add(spectrum, gains, [outLeft, outRight], at) {
      for (let k = 0; k < FRAME_BINS; k++) {
        const mirror = mirrorOf(k);
        const gain = gains[k];
        input[2 * k] = spectrum[2 * k] * gain;
        input[2 * k + 1] = spectrum[2 * k + 1] * gain;
        input[2 * mirror] = spectrum[2 * mirror] * gain;
        input[2 * mirror + 1] = spectrum[2 * mirror + 1] * gain;
      }
      fft.inverseTransform(asArray(inverse), asArray(input));
      const from = Math.max(0, at);
      const to = Math.min(FRAME_SIZE, at + outLeft.length);
      for (let i = from; i < to; i++) {
        outLeft[i - at] += (inverse[2 * i] * window[i]) / sum;
        outRight[i - at] += (inverse[2 * i + 1] * window[i]) / sum;
      }
    },
  };
}
