/**
 * What the instant around a possible stroke looks like: levels of ten frequency bands from a tenth of a second before
 * to a fifth after it, in the middle and in the sides, how sharply the spectrum rises, whether another chord sounds
 * afterwards or what rang goes on, and how near the neighbours are. Levels are against the loud parts of the same passage. To that comes
 * what the candidates around look like on average, which says whether drums play and how the guitar sounds.
 * Shape: {@link STROKE_FEATURES} values per candidate, about -3 to 3.
 */
import { cosineSimilarity, spectrumAnalyserOf, quantile } from '../../dsp';
import type { OnsetStrength, Region } from '../onsets/onset-strength';
import { CONTINUITY_FEATURES, createPhaseContinuity } from '../onsets/phase-continuity';
import { atSecond, localLevel } from './local-level';

/** Band edges, Hz: from the lowest fundamentals to the fizz of an amplifier. */
const BAND_EDGES_HZ = [90, 180, 300, 480, 750, 1150, 1700, 2600, 4000, 6200, 10000];
const BANDS = BAND_EDGES_HZ.length - 1;
/** Slots around the candidate that levels are averaged over, s. */
const SLOTS_S = [
  [-0.1, -0.05],
  [-0.05, -0.015],
  [-0.012, 0.003],
  [0.003, 0.018],
  [0.018, 0.04],
  [0.04, 0.08],
  [0.08, 0.13],
  [0.13, 0.22],
] as const;
const FFT_SIZE = 512;
/** 5 ms at 22.05 kHz. */
const HOP = 110;
/** Levels span this much below the loud parts; what is under it is silence. */
const RANGE_DB = 60;
/** Decibels become values of a few units. */
const DB_PER_UNIT = 15;
/** A passage this much under the loudest one is taken for silence. */
const QUIET_PASSAGE_DB = 40;
/** Averages are over the candidates within this time. */
const AVERAGE_REACH_S = 10;
/** Peaks stand this far over the loud nine tenths of a curve of attacks. */
const PEAK_OVER_LOUD = 3;
/** Attacks are strong against those of the passage, at least this strong against those of the song. */
const WEAK_PASSAGE = 0.1;

/** Chords before and after are compared on spectra of this size, up to this frequency. */
const CHORD_FFT = 2048;
const CHORD_MAX_HZ = 2500;
const BEFORE_S = 0.1;
const AFTER_S = 0.015;
/** Neighbours farther away than this do not matter. */
const FAR_S = 0.6;
const REGIONS: readonly Region[] = ['low', 'body', 'edge'];

/** Mid or side, and its onset strength. */
export interface StrokeSignal {
  readonly samples: Float32Array;
  readonly strength: OnsetStrength;
}

const LEVELS = BANDS * SLOTS_S.length;
const PER_SIGNAL = LEVELS + REGIONS.length + 2 + CONTINUITY_FEATURES;
const SHARED = 7;
const LOCAL = 2 * PER_SIGNAL + SHARED;
/** Local features whose mean over the recording is added: levels shortly before and after, and all but levels. */
const AVERAGED = Array.from({ length: LOCAL }, (_, i) => i).filter((i) => {
  const inSignal = i % PER_SIGNAL;
  const slot = Math.floor(inSignal / BANDS);
  return i >= 2 * PER_SIGNAL || slot === 1 || slot === 3 || inSignal >= LEVELS;
});
export const STROKE_FEATURES = LOCAL + AVERAGED.length;
/** Where features of the first candidate stand, [from, to). */
export const STROKE_FEATURE_SPANS = {
  levels: [0, LEVELS],
  side: [PER_SIGNAL, 2 * PER_SIGNAL],
} as const;

/** Levels in dB against the loud parts, frame by frame, band by band. */
function bandLevels(samples: Float32Array, sampleRate: number): { levels: Float32Array; frames: number } {
  const analyser = spectrumAnalyserOf(FFT_SIZE);
  const magnitudes = new Float32Array(analyser.bins);
  const binHz = sampleRate / FFT_SIZE;
  const edges = BAND_EDGES_HZ.map((hz) => Math.min(analyser.bins - 1, Math.round(hz / binHz)));
  const frames = Math.floor(samples.length / HOP) + 1;
  const levels = new Float32Array(frames * BANDS);
  for (let n = 0; n < frames; n++) {
    analyser.magnitudes(samples, n * HOP - FFT_SIZE / 2, magnitudes);
    for (let b = 0; b < BANDS; b++) {
      let power = 1e-12;
      for (let k = edges[b]; k < Math.max(edges[b] + 1, edges[b + 1]); k++) power += magnitudes[k] ** 2;
      levels[n * BANDS + b] = 10 * Math.log10(power);
    }
  }
  const frameRate = sampleRate / HOP;
  for (let b = 0; b < BANDS; b++) {
    const column = Float32Array.from({ length: frames }, (_, n) => levels[n * BANDS + b]);
    const floor = (quantile(column, 0.95) ?? 0) - QUIET_PASSAGE_DB;
    const loud = localLevel(column, frameRate, floor);
    for (let n = 0; n < frames; n++) {
      levels[n * BANDS + b] = Math.max(-RANGE_DB, column[n] - atSecond(loud, n / frameRate));
    }
  }
  return { levels, frames };
}

function peakNear(curve: Float32Array, frame: number): number {
  let peak = 0;
  for (let n = Math.max(0, frame - 2); n <= Math.min(curve.length - 1, frame + 2); n++) {
    peak = Math.max(peak, curve[n]);
  }
  return peak;
}

/**
 * Features of each candidate, one after the other. `side` is null for one channel or where nothing stands in the
 * sides; its features are then 0.
 */
export function computeStrokeFeatures(
  mid: StrokeSignal,
  side: StrokeSignal | null,
  sampleRate: number,
  candidatesS: readonly number[],
): Float32Array {
  const out = new Float32Array(candidatesS.length * STROKE_FEATURES);
  const chordAnalyser = spectrumAnalyserOf(CHORD_FFT);
  const chordBins = Math.round((CHORD_MAX_HZ / sampleRate) * CHORD_FFT);
  const before = new Float32Array(chordAnalyser.bins);
  const after = new Float32Array(chordAnalyser.bins);
  const heights = new Float32Array(candidatesS.length);
  const continuity = createPhaseContinuity(sampleRate);

  [mid, side].forEach((signal, which) => {
    if (!signal) return;
    const { levels, frames } = bandLevels(signal.samples, sampleRate);
    const { curves, frameRate } = signal.strength;
    const strong = REGIONS.map((region) => {
      const floor = Math.max(0.02, WEAK_PASSAGE * (quantile(curves[region], 0.98) ?? 0));
      return localLevel(curves[region], frameRate, floor);
    });
    candidatesS.forEach((timeS, k) => {
      let at = k * STROKE_FEATURES + which * PER_SIGNAL;
      for (const [fromS, toS] of SLOTS_S) {
        // Frames share a slot by how much of them lies in it, so that levels do not hang on where frames lie.
        const from = ((timeS + fromS) * sampleRate) / HOP + 0.5;
        const to = ((timeS + toS) * sampleRate) / HOP + 0.5;
        for (let b = 0; b < BANDS; b++) {
          let sum = 0;
          for (let n = Math.floor(from); n < to; n++) {
            const share = Math.min(to, n + 1) - Math.max(from, n);
            sum += share * (n >= 0 && n < frames ? levels[n * BANDS + b] : -RANGE_DB);
          }
          out[at++] = sum / (to - from) / DB_PER_UNIT + 1;
        }
      }
      const frame = Math.round(timeS * frameRate);
      REGIONS.forEach((region, r) => {
        const height = peakNear(curves[region], frame) / (PEAK_OVER_LOUD * atSecond(strong[r], timeS));
        out[at++] = Math.min(3, height);
        if (region === 'body') heights[k] = Math.max(heights[k], height);
      });
      const length = Math.round((BEFORE_S - AFTER_S) * sampleRate);
      const start = (fromS: number): number => Math.round((timeS + fromS) * sampleRate);
      chordAnalyser.magnitudes(signal.samples, start(-BEFORE_S), before, length);
      chordAnalyser.magnitudes(signal.samples, start(AFTER_S), after, length);
      const [a, b] = [before.subarray(2, chordBins), after.subarray(2, chordBins)];
      out[at++] = 2 * cosineSimilarity(a, b) - 1;
      out[at++] = flatness(b);
      continuity(signal.samples, timeS, out, at);
    });
  });

  candidatesS.forEach((timeS, k) => {
    let at = k * STROKE_FEATURES + 2 * PER_SIGNAL;
    const gap = (other: number | undefined): number =>
      other === undefined ? 1 : Math.min(1, Math.abs(timeS - other) / FAR_S);
    const height = (other: number): number => Math.min(3, heights[other] ?? 0);
    out[at++] = gap(candidatesS[k - 1]);
    out[at++] = gap(candidatesS[k + 1]);
    out[at++] = height(k - 1) - height(k);
    out[at++] = height(k + 1) - height(k);
    out[at++] = gap(candidatesS[k - 2]);
    out[at++] = gap(candidatesS[k + 2]);
    out[at] = side ? 1 : 0;
  });
  addAverages(out, candidatesS);
  return out;
}

/** Writes the means of {@link AVERAGED} around each candidate behind its local features. */
function addAverages(features: Float32Array, timesS: readonly number[]): void {
  AVERAGED.forEach((index, a) => {
    let [from, to, sum] = [0, 0, 0];
    timesS.forEach((timeS, k) => {
      for (; to < timesS.length && timesS[to] <= timeS + AVERAGE_REACH_S; to++) {
        sum += features[to * STROKE_FEATURES + index];
      }
      for (; timesS[from] < timeS - AVERAGE_REACH_S; from++) sum -= features[from * STROKE_FEATURES + index];
      features[k * STROKE_FEATURES + LOCAL + a] = sum / (to - from);
    });
  });
}

/** Geometric over arithmetic mean of the power, in decades: 0 = noise, -3 and below = clear partials. */
function flatness(magnitudes: Float32Array): number {
  let logs = 0;
  let sum = 0;
  for (const m of magnitudes) {
    const power = m * m + 1e-12;
    logs += Math.log10(power);
    sum += power;
  }
  return Math.max(-4, logs / magnitudes.length - Math.log10(sum / magnitudes.length)) + 1.5;
}
