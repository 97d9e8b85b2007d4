/**
 * How loud each bar is from the lowest to the highest band, whoever plays: where drums or a second guitar come in, the same riff has another spectrum.
 * Long-term average spectra on a logarithmic filterbank, one per bar.
 */
import { createLogFilterbank, median, spectrumAnalyserOf } from '../../dsp';

/** At 22.05 kHz 93 ms; bins of 11 Hz, so that an octave of low strings has bands of its own. */
const WINDOW = 2048;
/** From under the bass guitar to over the cymbals' body, four bands an octave. */
const BANDS = { minHz: 50, maxHz: 10_000, bandsPerOctave: 4 };
/** Places of a bar that are looked at, evenly spaced: thirty-seconds of a bar of four. */
const PLACES = 32;
/** Added to magnitudes, so that silence stands at -90 dB instead of nowhere. */
const FLOOR = 10 ** (-90 / 20);

/** Mean level of each band over a bar, dB. */
export type BarSpectrum = Float32Array;

/** Bars are [downbeats[i], downbeats[i + 1]). */
export function computeBarSpectra(
  samples: Float32Array,
  sampleRate: number,
  downbeatsS: readonly number[],
  durationS: number,
): BarSpectrum[] {
  const analyser = spectrumAnalyserOf(WINDOW);
  const filterbank = createLogFilterbank(WINDOW, sampleRate, BANDS);
  const magnitudes = new Float32Array(analyser.bins);
  const bands = new Float32Array(filterbank.bands);
  return downbeatsS.map((startS, b): BarSpectrum => {
    const lengthS = (downbeatsS[b + 1] ?? durationS) - startS;
    const spectrum = new Float32Array(filterbank.bands);
    for (let place = 0; place < PLACES; place++) {
      const middle = Math.round((startS + ((place + 0.5) / PLACES) * lengthS) * sampleRate);
      analyser.magnitudes(samples, middle - WINDOW / 2, magnitudes);
      filterbank.apply(magnitudes, bands);
      for (let band = 0; band < bands.length; band++) {
        spectrum[band] += (20 * Math.log10(bands[band] + FLOOR)) / PLACES;
      }
    }
    return spectrum;
  });
}

/** How far apart the middle levels (medians) of two runs of bars are, so that one loud bar says nothing: the mean over all bands, dB. */
export function spectralDistance(some: readonly BarSpectrum[], others: readonly BarSpectrum[]): number {
  const middle = (bars: readonly BarSpectrum[], band: number): number =>
    median(bars.map((bar) => bar[band])) ?? 0;
  let sum = 0;
  for (let band = 0; band < some[0].length; band++)
    sum += Math.abs(middle(some, band) - middle(others, band));
  return sum / some[0].length;
}
