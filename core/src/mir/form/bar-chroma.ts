/**
 * What sounds in each bar, whoever plays it: on real records the strums of a noisy passage are heard otherwise each time it
 * comes round, but the band repeats as a whole. Chroma at places of the bar, from which the mean of the song is taken, so that
 * what its chords have in common does not count.
 * Method: bar-synchronous chroma features compared with all shifts (Bartsch and Wakefield, "To catch a chorus: using chroma-based
 * representations for audio thumbnailing", WASPAA 2001; Goto, "A chorus section detection method for musical audio signals", IEEE TASLP 14(5), 2006).
 */
import { spectrumAnalyserOf } from '../../dsp';

const PITCH_CLASSES = 12;
/** At 22.05 kHz 186 ms, an eighth at 160 bpm, and bins of 5.4 Hz. */
const WINDOW = 4096;
/** At the lowest a semitone is hardly two bins wide. */
const LOWEST_HZ = 160;

export interface ChromaDetail {
  /** Places of a bar that are looked at, evenly spaced. */
  readonly places: number;
  readonly highestHz: number;
}
/**
 * Thirty-seconds of a bar of four. Up to 4 kHz: partials up there say little of the chord and much of who plays it, so that the same chords under
 * another lead line are another bar.
 */
const DETAIL: ChromaDetail = { places: 32, highestHz: 4000 };
/** Bins on both sides that a peak is compared with, some 80 Hz. */
const FLOOR_BINS = 15;
/** Before the logarithm: 60 dB under a full-scale sine still counts for about one. */
const GAIN = 1600;

/** Chroma of one bar, place after place, each of length one; zeros where nothing sounds. */
export type BarChroma = Float32Array;

/** Pitch class of each bin in reach, -1 of others. */
function binClasses(bins: number, sampleRate: number, offsetCents: number, highestHz: number): Int8Array {
  return Int8Array.from({ length: bins }, (_, k) => {
    const hz = (k * sampleRate) / WINDOW;
    if (hz < LOWEST_HZ || hz > highestHz) return -1;
    const midi = 69 + 12 * Math.log2(hz / 440) - offsetCents / 100;
    return Math.round(midi) % PITCH_CLASSES;
  });
}

function toLengthOne(chroma: Float32Array, at: number): void {
  let power = 0;
  for (let c = at; c < at + PITCH_CLASSES; c++) power += chroma[c] * chroma[c];
  const scale = power > 0 ? 1 / Math.sqrt(power) : 0;
  for (let c = at; c < at + PITCH_CLASSES; c++) chroma[c] *= scale;
}

/** Takes away what all places have in common; silent ones stay silent. */
function centre(bars: readonly BarChroma[]): void {
  const mean = new Float32Array(PITCH_CLASSES);
  let sounding = 0;
  const isSilent = (bar: BarChroma, at: number): boolean =>
    bar.subarray(at, at + PITCH_CLASSES).every((v) => v === 0);
  for (const bar of bars) {
    for (let at = 0; at < bar.length; at += PITCH_CLASSES) {
      if (isSilent(bar, at)) continue;
      sounding++;
      for (let c = 0; c < PITCH_CLASSES; c++) mean[c] += bar[at + c];
    }
  }
  for (const bar of bars) {
    for (let at = 0; at < bar.length; at += PITCH_CLASSES) {
      if (isSilent(bar, at)) continue;
      for (let c = 0; c < PITCH_CLASSES; c++) bar[at + c] -= mean[c] / sounding;
      toLengthOne(bar, at);
    }
  }
}

/** Bars are [downbeats[i], downbeats[i + 1]); `offsetCents` of the recording from 440 Hz. */
export function computeBarChroma(
  samples: Float32Array,
  sampleRate: number,
  offsetCents: number,
  downbeatsS: readonly number[],
  durationS: number,
  { places, highestHz }: ChromaDetail = DETAIL,
): BarChroma[] {
  const analyser = spectrumAnalyserOf(WINDOW);
  const classes = binClasses(analyser.bins, sampleRate, offsetCents, highestHz);
  const magnitudes = new Float32Array(analyser.bins);
  // Bins that a pitch class takes, and those around them.
  const reach = Math.min(analyser.bins, classes.findLastIndex((c) => c >= 0) + FLOOR_BINS + 1);
  const sums = new Float64Array(reach + 1);
  const bars = downbeatsS.map((startS, b): BarChroma => {
    const lengthS = (downbeatsS[b + 1] ?? durationS) - startS;
    const bar = new Float32Array(places * PITCH_CLASSES);
    for (let place = 0; place < places; place++) {
      const middle = Math.round((startS + ((place + 0.5) / places) * lengthS) * sampleRate);
      analyser.magnitudes(samples, middle - WINDOW / 2, magnitudes);
      for (let k = 0; k < reach; k++) {
        magnitudes[k] = Math.log1p(GAIN * magnitudes[k]);
        sums[k + 1] = sums[k] + magnitudes[k];
      }
      const at = place * PITCH_CLASSES;
      for (let k = FLOOR_BINS; k + FLOOR_BINS < reach; k++) {
        if (classes[k] < 0) continue;
        const floor = (sums[k + FLOOR_BINS + 1] - sums[k - FLOOR_BINS]) / (2 * FLOOR_BINS + 1);
        bar[at + classes[k]] += Math.max(0, magnitudes[k] - floor);
      }
      toLengthOne(bar, at);
    }
    return bar;
  });
  centre(bars);
  return bars;
}

/**
 * How far two bars sound alike when the first is moved up by `shift` semitones: the mean cosine of their places, 1 the same, about 0 unrelated,
 * under it where one has what the other lacks.
 */
export function chromaSimilarity(a: BarChroma, b: BarChroma, shift: number): number {
  const turn = PITCH_CLASSES - shift;
  let sum = 0;
  for (let at = 0; at < a.length; at += PITCH_CLASSES) {
    for (let c = 0; c < turn; c++) sum += a[at + c] * b[at + c + shift];
    for (let c = turn; c < PITCH_CLASSES; c++) sum += a[at + c] * b[at + c - turn];
  }
  return (sum * PITCH_CLASSES) / a.length;
}
