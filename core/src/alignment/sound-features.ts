/**
 * What two recordings of one song have in common, whoever plays: which notes sound (chroma), and where something is struck. Measured so
 * that loudness, balance and room matter little.
 */
import { createLogFilterbank, spectrumAnalyserOf } from '../dsp';

export interface MonoSignal {
  readonly samples: Float32Array;
  readonly sampleRate: number;
}

/** Half semitones: recordings that lie between two keys differ by a turn of the circle too. */
export const CHROMA_BINS = 24;
/** Step of the chroma: path points lie on it, and are placed finer by the strokes. */
export const CHROMA_HOP_S = 0.02;
/** A window that tells semitones apart from 110 Hz on: 5 Hz a bin. */
const CHROMA_WINDOW = 4096;
/** Under this drums and the hum of a room are as loud as notes; above it fizz has no pitch. */
const CHROMA_HZ = { least: 110, most: 2200 };
const A4_HZ = 440;
/** Log compression, log(1 + g m): quiet notes count too (Müller, "Fundamentals of Music Processing", 2015, section 3.1.2.1). */
const COMPRESSION = 100;
/** Step of the strokes: a quarter of the error that is wanted. */
export const STROKE_HOP_S = 0.005;
const STROKE_WINDOW = 512;
const STROKE_BANDS = { minHz: 50, maxHz: 10_000, bandsPerOctave: 3 };
/** Registers are told apart, so that a bass drum meets no cymbal: below the first, between both, above. */
const REGISTERS_HZ = [180, 3000];
/** Strokes are measured against the loudest within this time: quiet parts have strokes too. */
const LOUDEST_WITHIN_S = 1;

export interface SoundFeatures {
  /** A circle of {@link CHROMA_BINS} per step of {@link CHROMA_HOP_S}, of length 1; zeros in silence. */
  readonly chroma: Float32Array;
  readonly frames: number;
  /** Per register, 0 to 1 for each step of {@link STROKE_HOP_S}. */
  readonly strokes: readonly Float32Array[];
}

export function featuresOf({ samples, sampleRate }: MonoSignal): SoundFeatures {
  const { chroma, frames } = chromaOf(samples, sampleRate);
  return { chroma, frames, strokes: strokesOf(samples, sampleRate) };
}

/** Scales the vector at `start` to length 1; one of zeros stays. */
export function toUnitLength(values: Float32Array, start: number, length: number): void {
  let sum = 0;
  for (let k = start; k < start + length; k++) sum += values[k] * values[k];
  if (sum <= 1e-12) return;
  const scale = 1 / Math.sqrt(sum);
  for (let k = start; k < start + length; k++) values[k] *= scale;
}

function chromaOf(samples: Float32Array, sampleRate: number): { chroma: Float32Array; frames: number } {
  const analyser = spectrumAnalyserOf(CHROMA_WINDOW);
  const hop = CHROMA_HOP_S * sampleRate;
  const frames = Math.max(1, Math.floor(samples.length / hop));
  const chroma = new Float32Array(frames * CHROMA_BINS);
  const magnitudes = new Float32Array(analyser.bins);
  const binHz = sampleRate / CHROMA_WINDOW;
  const [first, last] = [Math.ceil(CHROMA_HZ.least / binHz), Math.floor(CHROMA_HZ.most / binHz)];
  const places = Float64Array.from({ length: last + 1 }, (_, k) => {
    const place = (CHROMA_BINS * Math.log2((k * binHz) / A4_HZ)) % CHROMA_BINS;
    return place < 0 ? place + CHROMA_BINS : place;
  });
  for (let frame = 0; frame < frames; frame++) {
    analyser.magnitudes(samples, Math.round(frame * hop - CHROMA_WINDOW / 2), magnitudes);
    const start = frame * CHROMA_BINS;
    for (let k = first; k <= last; k++) {
      const strength = Math.log(1 + COMPRESSION * magnitudes[k]);
      // A bin between two classes counts for both.
      const low = Math.floor(places[k]);
      const share = places[k] - low;
      chroma[start + (low % CHROMA_BINS)] += (1 - share) * strength;
      chroma[start + ((low + 1) % CHROMA_BINS)] += share * strength;
    }
    toUnitLength(chroma, start, CHROMA_BINS);
  }
  return { chroma, frames };
}

/** Rises of the logarithmic bands (spectral flux) in each register, against the loudest around. */
function strokesOf(samples: Float32Array, sampleRate: number): Float32Array[] {
  const analyser = spectrumAnalyserOf(STROKE_WINDOW);
  const bank = createLogFilterbank(STROKE_WINDOW, sampleRate, STROKE_BANDS);
  const registerOf = bank.centresHz.map((hz) => REGISTERS_HZ.filter((border) => hz > border).length);
  const hop = STROKE_HOP_S * sampleRate;
  const frames = Math.max(1, Math.floor(samples.length / hop));
  const magnitudes = new Float32Array(analyser.bins);
  const flux = Array.from({ length: REGISTERS_HZ.length + 1 }, () => new Float32Array(frames));
  let [before, now] = [new Float32Array(bank.bands), new Float32Array(bank.bands)];
  for (let frame = 0; frame < frames; frame++) {
    analyser.magnitudes(samples, Math.round(frame * hop - STROKE_WINDOW / 2), magnitudes);
    bank.apply(magnitudes, now);
    for (let b = 0; b < now.length; b++) {
      now[b] = Math.log(1 + COMPRESSION * now[b]);
      if (frame > 0 && now[b] > before[b]) flux[registerOf[b]][frame] += now[b] - before[b];
    }
    [before, now] = [now, before];
  }
  return flux.map(againstLoudest);
}

function againstLoudest(flux: Float32Array): Float32Array {
  const reach = Math.round(LOUDEST_WITHIN_S / STROKE_HOP_S);
  return flux.map((value, frame) => {
    let loudest = 1e-6;
    // Every other one is enough for a level.
    const to = Math.min(flux.length, frame + reach);
    for (let k = Math.max(0, frame - reach); k < to; k += 2) if (flux[k] > loudest) loudest = flux[k];
    return Math.min(1, value / loudest);
  });
}
