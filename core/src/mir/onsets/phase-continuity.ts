/**
 * Does what rang before go on through an instant? A partial that rings turns its phase evenly, so two windows before the
 * instant say what a third one behind it would hold; a string that is struck begins anew and does not keep to it, a snare
 * over a ringing chord leaves the partials as they were.
 * Method: prediction in the complex domain (Bello, Duxbury, Davies and Sandler, "On the use of phase and energy for musical
 * onset detection in the complex domain", IEEE Signal Processing Letters 11(6), 2004), here as the correlation of what was
 * predicted with what came, per band and window length.
 */
import { spectrumAnalyserOf } from '../../dsp';

/** 23, 46 and 93 ms at 22.05 kHz: short ones fit between sixteenths, long ones tell the lowest partials apart. */
const WINDOWS = [512, 1024, 2048];
/** Samples that are left out on both sides of the instant, 2 ms: it is not known better. */
const GAP = 44;
/** Hz: fundamentals, partials of the chord, partials that distortion adds, its fizz. */
const BAND_EDGES_HZ = [60, 250, 600, 1500, 3000];
const BANDS = BAND_EDGES_HZ.length - 1;
/** Power of what is nothing: 200 dB under a full-scale sine. */
const SILENCE = 1e-20;

/** Per window length and band: how well the sound behind the instant was predicted, and the one before it. */
export const CONTINUITY_FEATURES = WINDOWS.length * BANDS * 2;

interface Spectrum {
  readonly re: Float32Array;
  readonly im: Float32Array;
}

/** Writes {@link CONTINUITY_FEATURES} values, each -1 to 1: 1 = goes on as it was. */
export type PhaseContinuity = (samples: Float32Array, timeS: number, out: Float32Array, at: number) => void;

/**
 * Correlation of `now` with what `before` and `earlier` (equal distances apart) predict: the size of `before`, and its phase
 * turned once more by as much as from `earlier` to it.
 */
function predictability(
  now: Spectrum,
  before: Spectrum,
  earlier: Spectrum,
  from: number,
  to: number,
): number {
  let agreement = 0;
  let power = SILENCE;
  let predictedPower = SILENCE;
  for (let k = from; k < to; k++) {
    const bRe = before.re[k];
    const bIm = before.im[k];
    const eRe = earlier.re[k];
    const eIm = earlier.im[k];
    // before · before · conj(earlier), brought to the size of before.
    const turnRe = bRe * eRe + bIm * eIm;
    const turnIm = bIm * eRe - bRe * eIm;
    const size = Math.sqrt(turnRe * turnRe + turnIm * turnIm) + SILENCE;
    const pRe = (bRe * turnRe - bIm * turnIm) / size;
    const pIm = (bRe * turnIm + bIm * turnRe) / size;
    agreement += now.re[k] * pRe + now.im[k] * pIm;
    power += now.re[k] ** 2 + now.im[k] ** 2;
    predictedPower += pRe * pRe + pIm * pIm;
  }
  return agreement / Math.sqrt(power * predictedPower);
}

export function createPhaseContinuity(sampleRate: number): PhaseContinuity {
  const lengths = WINDOWS.map((size) => {
    const analyser = spectrumAnalyserOf(size);
    const spectra = Array.from({ length: 4 }, (): Spectrum => ({
      re: new Float32Array(analyser.bins),
      im: new Float32Array(analyser.bins),
    }));
    const edges = BAND_EDGES_HZ.map((hz) => Math.round((hz / sampleRate) * size));
    return { size, analyser, spectra, edges };
  });
  return (samples, timeS, out, at) => {
    const instant = Math.round(timeS * sampleRate);
    let k = at;
    for (const { size, analyser, spectra, edges } of lengths) {
      // The first lies behind the instant, each of the others one distance before the one ahead of it.
      const distance = size + 2 * GAP;
      spectra.forEach(({ re, im }, i) => analyser.spectrum(samples, instant + GAP - i * distance, re, im));
      const [after, before, earlier, earliest] = spectra;
      for (let b = 0; b < BANDS; b++) {
        // The shortest window has no bin of its own for every edge.
        const to = Math.max(edges[b] + 1, edges[b + 1]);
        out[k++] = predictability(after, before, earlier, edges[b], to);
        out[k++] = predictability(before, earlier, earliest, edges[b], to);
      }
    }
  };
}
