/** The kinds of chords that the ear tells apart, in the order of their keys, and the kind of sounding notes. */
import { identifyChord } from '@wild-needle/core/theory';
import type { MidiNote, PitchClass } from '@wild-needle/core/units';
import type { EarKind } from '@wild-needle/contract';

export const EAR_KIND_WORDS: Readonly<Record<EarKind, string>> = {
  'two-strings': 'Two strings',
  'three-strings': 'Three strings',
  'fifth-below': 'Fifth below',
  'flat-five': 'Flat five',
  octave: 'Octave',
  sus2: 'Sus2',
  sus4: 'Sus4',
  major: 'Major',
  minor: 'Minor',
  single: 'One note',
};

export interface Named {
  readonly rootPc: PitchClass;
  readonly kind: EarKind;
}

const KIND_OF_QUALITY: Partial<Record<string, EarKind>> = {
  b5: 'flat-five',
  oct: 'octave',
  sus2: 'sus2',
  sus4: 'sus4',
  maj: 'major',
  min: 'minor',
  single: 'single',
};

/** Root and kind of sounding notes; null for none, and for what has no common name. */
export function namedBy(midi: readonly MidiNote[]): Named | null {
  const chord = identifyChord(midi);
  if (!chord) return null;
  const { quality, rootPc, bassPc } = chord;
  if (quality !== '5') {
    const kind = KIND_OF_QUALITY[quality];
    return kind ? { rootPc, kind } : null;
  }
  if (rootPc !== bassPc) return { rootPc, kind: 'fifth-below' };
  return { rootPc, kind: midi.length === 2 ? 'two-strings' : 'three-strings' };
}

/** Right when root and kind are; the root alone counts half. */
export function scoreOf(guessed: Named, heard: Named): 0 | 0.5 | 1 {
  if (guessed.rootPc !== heard.rootPc) return 0;
  return guessed.kind === heard.kind ? 1 : 0.5;
}
