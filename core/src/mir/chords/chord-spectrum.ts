/**
 * The spectrum of one strum on a semitone axis, made comparable: {@link BINS_PER_SEMITONE} bins a semitone,
 * divided by the level of its own surroundings (whitened) and compressed, so that neither tone controls nor
 * loudness matter. Shape: {@link SPECTRUM_SIZE} values, index 0 = {@link FIRST_MIDI}.
 */
import { spectrumAnalyserOf } from '../../dsp';
import { midiToHz } from '../../theory';

export const BINS_PER_SEMITONE = 3;
export const FIRST_MIDI = 16;
const LAST_MIDI = 116;
/** Pick noise is over this long after the onset: chords are read from here on. */
export const AFTER_ONSET_S = 0.012;
export const SPECTRUM_SIZE = (LAST_MIDI - FIRST_MIDI) * BINS_PER_SEMITONE;
/** Longest part that is read of a strum: longer ones add the decay, not the chord. */
export const SPECTRUM_SECONDS = 0.37;
/** Zero-padded length: bins of 1.3 Hz at 22.05 kHz, a third of a semitone at 65 Hz. */
const FFT_SIZE = 16384;
/** Surroundings for whitening: one octave to either side. */
const WHITEN_RADIUS = 12 * BINS_PER_SEMITONE;

export type ChordSpectrum = (
  samples: Float32Array,
  startSample: number,
  endSample: number,
  offsetCents: number,
  out: Float32Array,
) => void;

/** Read once, as the networks have learned it. */
const AS_LEARNED: readonly number[] = [0];
/**
 * A partial at the edge of two places falls into one or the other by a hair, and a copy of the recording, faster or through a codec, has it in the other. Read
 * with the axis moved up to half a place down and up, and averaged, it is in both (docs/experiments.md, "Steady answers").
 */
export const STEADY: readonly number[] = [-16, -8, 0, 8, 16];

/**
 * Reads at most {@link SPECTRUM_SECONDS} from `startSample`; `offsetCents` is the recording's reference offset. `movedCents`: the mean of the axis
 * moved by each of them.
 */
export function createChordSpectrum(
  sampleRate: number,
  movedCents: readonly number[] = AS_LEARNED,
): ChordSpectrum {
  const analyser = spectrumAnalyserOf(FFT_SIZE);
  const magnitudes = new Float32Array(analyser.bins);
  const placed = movedCents.map((moved) => createAxis(analyser.bins, sampleRate / FFT_SIZE, moved));
  const one = new Float32Array(SPECTRUM_SIZE);
  return (samples, startSample, endSample, offsetCents, out) => {
    const length = Math.min(endSample - startSample, Math.round(SPECTRUM_SECONDS * sampleRate));
    analyser.magnitudes(samples, startSample, magnitudes, Math.max(64, length));
    placed[0](magnitudes, offsetCents, out);
    if (placed.length === 1) return;
    for (const place of placed.slice(1)) {
      place(magnitudes, offsetCents, one);
      for (let i = 0; i < SPECTRUM_SIZE; i++) out[i] += one[i];
    }
    toUnitLength(out);
  };
}

function toUnitLength(spectrum: Float32Array): void {
  let power = 0;
  for (let i = 0; i < SPECTRUM_SIZE; i++) power += spectrum[i] * spectrum[i];
  const norm = Math.sqrt(power) || 1;
  for (let i = 0; i < SPECTRUM_SIZE; i++) spectrum[i] /= norm;
}

/** Magnitudes of a Fourier transform on the semitone axis, whitened and of unit length. */
function createAxis(
  bins: number,
  binHz: number,
  movedCents: number,
): (magnitudes: Float32Array, offsetCents: number, out: Float32Array) => void {
  const raw = new Float32Array(SPECTRUM_SIZE);
  const squares = new Float64Array(SPECTRUM_SIZE + 1);
  /** FFT bins between the places of the semitone axis, for the offset they were made for. */
  const edges = new Int32Array(SPECTRUM_SIZE + 1);
  let edgesOffset = NaN;
  return (magnitudes, offsetCents, out) => {
    if (offsetCents !== edgesOffset) {
      edgesOffset = offsetCents;
      for (let i = 0; i <= SPECTRUM_SIZE; i++) {
        const midi = FIRST_MIDI + (i - 0.5) / BINS_PER_SEMITONE + (offsetCents + movedCents) / 100;
        edges[i] = Math.max(1, Math.min(bins - 1, Math.round(midiToHz(midi) / binHz)));
      }
    }
    for (let i = 0; i < SPECTRUM_SIZE; i++) {
      let peak = 0;
      for (let k = edges[i]; k <= edges[i + 1]; k++) if (magnitudes[k] > peak) peak = magnitudes[k];
      raw[i] = peak;
      squares[i + 1] = squares[i] + peak * peak;
    }
    const overall = Math.sqrt(squares[SPECTRUM_SIZE] / SPECTRUM_SIZE);
    let mean = 0;
    for (let i = 0; i < SPECTRUM_SIZE; i++) {
      const from = Math.max(0, i - WHITEN_RADIUS);
      const to = Math.min(SPECTRUM_SIZE, i + WHITEN_RADIUS + 1);
      const local = Math.sqrt((squares[to] - squares[from]) / (to - from));
      // Silence around a bin must not be blown up to the level of a note.
      out[i] = Math.sqrt(raw[i] / Math.max(local, 0.02 * overall, 1e-9));
      mean += out[i] / SPECTRUM_SIZE;
    }
    for (let i = 0; i < SPECTRUM_SIZE; i++) out[i] -= mean;
    toUnitLength(out);
  };
}
