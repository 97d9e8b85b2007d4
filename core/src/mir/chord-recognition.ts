/**
 * Which chord each strum is: its spectrum against all templates, weighed by how usual each shape is. The song's own
 * vocabulary as a prior was tried and made bass octaves worse (docs/decisions/0003-analysis.md).
 */
import type { MidiNote } from '../units';
import {
  CHORD_SHAPES,
  createChordTemplates,
  HIGHEST_BASS,
  LOWEST_BASS,
  type ChordTemplate,
} from './chord-templates';
import { createChordSpectrum, SPECTRUM_SIZE } from './chord-spectrum';

/** Pick noise is over after this; the chord is read from here. */
const AFTER_ONSET_S = 0.012;
const BEFORE_NEXT_S = 0.005;
/** Correlation differences become probabilities by exp(this * correlation). Tuned in bench/quality. */
const SHARPNESS = 45;

export interface RecognisedChord {
  readonly bass: MidiNote;
  readonly shapeIndex: number;
  /** Probability of this chord against all others. */
  readonly confidence: number;
  /** Correlation with its template, 1 = the same; noise without pitch stays under about 0.35. */
  readonly fit: number;
}

export interface StrumSpan {
  readonly timeS: number;
  readonly endS: number;
}

export type ChordRecogniser = (
  signals: readonly { readonly samples: Float32Array; readonly weight: number; readonly hasBass: boolean }[],
  strums: readonly StrumSpan[],
  offsetCents: number,
  onStrum?: (index: number) => void,
) => RecognisedChord[];

const SHAPES = CHORD_SHAPES.length;
const CLASSES = (HIGHEST_BASS - LOWEST_BASS + 1) * SHAPES;

function classOf({ bass, shapeIndex }: ChordTemplate): number {
  return (bass - LOWEST_BASS) * SHAPES + shapeIndex;
}

/** Makes the templates once; the returned function may be used for any number of recordings. */
export function createChordRecogniser(sampleRate: number): ChordRecogniser {
  const templates = createChordTemplates(sampleRate);
  const extract = createChordSpectrum(sampleRate);
  const spectrum = new Float32Array(SPECTRUM_SIZE);

  /** Probability of each class by its correlation and the prior of its shape. */
  function probabilities(fit: Float32Array): Float32Array {
    const p = fit.map((f, c) => CHORD_SHAPES[c % SHAPES].prior * Math.exp(SHARPNESS * (f - 1)));
    const sum = p.reduce((s, v) => s + v, 0) || 1;
    return p.map((v) => v / sum);
  }

  /** Best correlation of each class over the template variants. */
  function fitClasses(hasBass: boolean, out: Float32Array): void {
    out.fill(-1);
    for (const template of templates) {
      if (template.withBassGuitar && !hasBass) continue;
      let dot = 0;
      for (let i = 0; i < SPECTRUM_SIZE; i++) dot += template.spectrum[i] * spectrum[i];
      const c = classOf(template);
      if (dot > out[c]) out[c] = dot;
    }
  }

  return (signals, strums, offsetCents, onStrum) => {
    const fits = strums.map(({ timeS, endS }, index) => {
      const total = new Float32Array(CLASSES);
      const one = new Float32Array(CLASSES);
      const from = Math.round((timeS + AFTER_ONSET_S) * sampleRate);
      const to = Math.round((endS - BEFORE_NEXT_S) * sampleRate);
      for (const { samples, weight, hasBass } of signals) {
        extract(samples, from, to, offsetCents, spectrum);
        fitClasses(hasBass, one);
        for (let c = 0; c < CLASSES; c++) total[c] += weight * one[c];
      }
      onStrum?.(index);
      return total;
    });

    return fits.map((fit) => {
      const p = probabilities(fit);
      let best = 0;
      for (let c = 1; c < CLASSES; c++) if (p[c] > p[best]) best = c;
      return {
        bass: LOWEST_BASS + Math.floor(best / SHAPES),
        shapeIndex: best % SHAPES,
        confidence: p[best],
        fit: fit[best],
      };
    });
  };
}
