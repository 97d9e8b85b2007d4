/**
 * How likely each note sounds in a strum. The chord network reads the spectrum as chords that a guitar plays, with what
 * distortion and the bass guitar add explained away; the probability of a note is that of all readings that have it. Beside it
 * stands how loud the pitch is in the sound itself, whoever makes it.
 */
import type { MidiNote } from '../../units';
import { CHORD_SHAPES } from './chord-shapes.data';
import { createChordEnsemble } from './chord-ensemble';
import { SHAPES, HIGHEST_BASS, LOWEST_BASS } from './chord-network';
import {
  AFTER_ONSET_S,
  BINS_PER_SEMITONE,
  createChordSpectrum,
  FIRST_MIDI,
  SPECTRUM_SIZE,
} from './chord-spectrum';
import type { MidSide } from '../types';
import chordWeights from './chords.json';

/** Lowest and highest note answered: from the lowest bass of the network to the 24th fret of a high E. */
export const FIRST_HEARD_NOTE: MidiNote = LOWEST_BASS;
export const HEARD_NOTES = 58;

export interface HeardNotes {
  /** Probability that the guitar sounds the note, index 0 = {@link FIRST_HEARD_NOTE}. */
  readonly probability: Float32Array;
  /** Level of the pitch against the loudest, 0 to 1. */
  readonly level: Float32Array;
}

export interface NoteSpan {
  readonly startS: number;
  readonly endS: number;
}

/** Under this level, -60 dB of full scale, nothing sounds that the network could read. */
const SILENT_RMS = 1e-3;

function isSilent(samples: Float32Array, from: number, to: number): boolean {
  let sum = 0;
  for (let n = Math.max(0, from); n < Math.min(samples.length, to); n++) sum += samples[n] ** 2;
  return sum <= SILENT_RMS ** 2 * Math.max(1, to - from);
}

function marginals(
  logProbabilities: Float32Array,
  activation: (bass: MidiNote) => Float32Array,
): Float32Array {
  const out = new Float32Array(HEARD_NOTES);
  for (let bass = LOWEST_BASS; bass <= HIGHEST_BASS; bass++) {
    const present = activation(bass);
    for (let shape = 0; shape < SHAPES; shape++) {
      const p = Math.exp(logProbabilities[(bass - LOWEST_BASS) * SHAPES + shape]);
      // Readings this unlikely change nothing that is seen.
      if (p < 1e-4) continue;
      const { notes } = CHORD_SHAPES[shape];
      if (notes) {
        for (const above of notes) {
          const i = bass + above - FIRST_HEARD_NOTE;
          if (i < HEARD_NOTES) out[i] += p;
        }
      } else {
        present.forEach((share, above) => {
          const i = bass + above - FIRST_HEARD_NOTE;
          if (i < HEARD_NOTES) out[i] += p * (above === 0 ? 1 : share);
        });
      }
    }
  }
  return out;
}

/** How loud each pitch is in a span against the loudest, 0 to 1, index 0 = {@link FIRST_HEARD_NOTE}; all 0 in silence. */
export function createPitchLevels(
  sampleRate: number,
  offsetCents: number,
): (samples: Float32Array, span: NoteSpan) => Float32Array {
  const extract = createChordSpectrum(sampleRate);
  const spectrum = new Float32Array(SPECTRUM_SIZE);
  return (samples, { startS, endS }) => {
    const from = Math.round((startS + AFTER_ONSET_S) * sampleRate);
    const to = Math.round(endS * sampleRate);
    if (isSilent(samples, from, to)) return new Float32Array(HEARD_NOTES);
    extract(samples, from, to, offsetCents, spectrum);
    const level = levelsOf(spectrum);
    const loudest = level.reduce((most, v) => Math.max(most, v), 1e-9);
    return level.map((v) => v / loudest);
  };
}

function levelsOf(spectrum: Float32Array): Float32Array {
  return Float32Array.from({ length: HEARD_NOTES }, (_, i) => {
    const centre = (FIRST_HEARD_NOTE + i - FIRST_MIDI) * BINS_PER_SEMITONE;
    return Math.max(0, spectrum[centre], spectrum[centre + 1] ?? 0);
  });
}

/** The mean over several places where the same is played; all 0 for none, and in silence. */
export function hearNotes(
  { mid, side }: MidSide,
  sampleRate: number,
  spans: readonly NoteSpan[],
  offsetCents: number,
): HeardNotes {
  const extract = createChordSpectrum(sampleRate);
  const network = createChordEnsemble(chordWeights);
  const spectra = [new Float32Array(SPECTRUM_SIZE), new Float32Array(SPECTRUM_SIZE)];
  const probability = new Float32Array(HEARD_NOTES);
  const level = new Float32Array(HEARD_NOTES);
  for (const { startS, endS } of spans) {
    const from = Math.round((startS + AFTER_ONSET_S) * sampleRate);
    const to = Math.round(endS * sampleRate);
    if (isSilent(mid, from, to) && (!side || isSilent(side, from, to))) continue;
    extract(mid, from, to, offsetCents, spectra[0]);
    if (side) extract(side, from, to, offsetCents, spectra[1]);
    const evidence = network(spectra[0], side ? spectra[1] : null);
    marginals(evidence.logProbabilities, (bass) => evidence.activation(bass)).forEach((p, i) => {
      probability[i] += Math.min(1, p) / spans.length;
    });
    const guitar = side ? spectra[1] : spectra[0];
    levelsOf(guitar).forEach((value, i) => (level[i] += value / spans.length));
  }
  const loudest = level.reduce((most, v) => Math.max(most, v), 1e-9);
  return { probability, level: level.map((v) => v / loudest) };
}
