/**
 * What chords look like to the analysis: a small model of an amplified guitar is put through the same
 * feature extraction as the recording. Distortion acts on the sum of the strings, so the templates hold
 * the difference and sum tones that nobody plays; a chord is then not mistaken for the notes of its
 * distortion (docs/decisions/analysis.md).
 */
import { createRandom, type MidiNote } from '../units';
import { midiToHz, type ChordQuality } from '../theory';
import { createChordSpectrum, SPECTRUM_SECONDS, SPECTRUM_SIZE } from './chord-spectrum';

/** Shapes that are told apart, as semitones over the lowest note; `rootAbove` is the root over that note. */
export const CHORD_SHAPES: readonly {
  readonly quality: ChordQuality;
  readonly notes: readonly number[];
  readonly rootAbove: number;
  /** How usual the shape is in riff playing; common practice, only the order matters. */
  readonly prior: number;
}[] = [
  { quality: '5', notes: [0, 7, 12], rootAbove: 0, prior: 0.42 },
  { quality: '5', notes: [0, 7], rootAbove: 0, prior: 0.28 },
  { quality: '5', notes: [0, 5], rootAbove: 5, prior: 0.04 },
  { quality: '5', notes: [0, 5, 12], rootAbove: 5, prior: 0.015 },
  { quality: 'single', notes: [0], rootAbove: 0, prior: 0.1 },
  { quality: 'oct', notes: [0, 12], rootAbove: 0, prior: 0.03 },
  { quality: 'b5', notes: [0, 6], rootAbove: 0, prior: 0.012 },
  { quality: 'b5', notes: [0, 6, 12], rootAbove: 0, prior: 0.012 },
  { quality: 'sus2', notes: [0, 7, 14], rootAbove: 0, prior: 0.012 },
  { quality: 'sus4', notes: [0, 7, 12, 17], rootAbove: 0, prior: 0.015 },
  { quality: 'maj', notes: [0, 7, 12, 16, 19, 24], rootAbove: 0, prior: 0.025 },
  { quality: 'min', notes: [0, 7, 12, 15, 19, 24], rootAbove: 0, prior: 0.02 },
  { quality: 'maj', notes: [0, 5, 9], rootAbove: 5, prior: 0.01 },
];

/** Lowest notes looked for: from a low B to the high E string. */
export const LOWEST_BASS: MidiNote = 35;
export const HIGHEST_BASS: MidiNote = 64;

/**
 * Sounds that each chord is modelled with: gain into the clipping stage (clean, crunch, high gain), and the
 * level of a bass guitar that doubles the root an octave below.
 */
const SOUNDS = [
  { drive: 0.3, bassLevel: 0 },
  { drive: 3, bassLevel: 0 },
  { drive: 14, bassLevel: 0 },
  { drive: 5, bassLevel: 0.7 },
];

export interface ChordTemplate {
  readonly bass: MidiNote;
  readonly shapeIndex: number;
  readonly withBassGuitar: boolean;
  /** Whitened spectrum, see `chord-spectrum.ts`. */
  readonly spectrum: Float32Array;
}

/** Adds a plucked string: partials falling with their number, lightly stretched and decaying. */
function addString(
  out: Float32Array,
  sampleRate: number,
  freqHz: number,
  gain: number,
  phase: () => number,
): void {
  // A pick at a fifth of the string damps every fifth partial; brightness falls as 1 / h^1.2 (Fletcher and
  // Rossing 1998, "The physics of musical instruments", 2nd ed., ch. 2, plucked string).
  for (let h = 1; h <= 12; h++) {
    const hz = freqHz * h * Math.sqrt(1 + 0.00005 * h * h);
    if (hz > sampleRate * 0.45) break;
    const amplitude = (gain * (0.25 + Math.abs(Math.sin((Math.PI * h) / 5)))) / h ** 1.2;
    const step = (2 * Math.PI * hz) / sampleRate;
    const decay = Math.exp(-(1 + 0.6 * h) / sampleRate);
    // A decaying sine is a two-term recursion: no sine per sample.
    const start = phase();
    const turn = 2 * decay * Math.cos(step);
    let before = (amplitude * Math.sin(start - step)) / decay;
    let now = amplitude * Math.sin(start);
    for (let i = 0; i < out.length; i++) {
      out[i] += now;
      [before, now] = [now, turn * now - decay * decay * before];
    }
  }
}

/** All templates for signals of `sampleRate`; about 1600 spectra, a second or two of work: make them once. */
export function createChordTemplates(sampleRate: number): ChordTemplate[] {
  const extract = createChordSpectrum(sampleRate);
  const random = createRandom(20);
  const phase = (): number => 2 * Math.PI * random();
  const length = Math.round(SPECTRUM_SECONDS * sampleRate);
  const templates: ChordTemplate[] = [];
  for (let bass = LOWEST_BASS; bass <= HIGHEST_BASS; bass++) {
    CHORD_SHAPES.forEach((shape, shapeIndex) => {
      const strings = new Float32Array(length);
      for (const above of shape.notes) addString(strings, sampleRate, midiToHz(bass + above), 0.3, phase);
      const bassGuitar = new Float32Array(length);
      addString(bassGuitar, sampleRate, midiToHz(bass + shape.rootAbove - 12), 1, phase);
      for (const { drive, bassLevel } of SOUNDS) {
        const sound = new Float32Array(length);
        for (let i = 0; i < length; i++) {
          // The offset makes the clipping unsymmetric, as in a valve stage, and even products appear.
          sound[i] = Math.tanh(drive * strings[i] + 0.1) / Math.min(1, drive) + bassLevel * bassGuitar[i];
        }
        const spectrum = new Float32Array(SPECTRUM_SIZE);
        extract(sound, 0, length, 0, spectrum);
        templates.push({ bass, shapeIndex, withBassGuitar: bassLevel > 0, spectrum });
      }
    });
  }
  return templates;
}
