/** Notes as MusicXML writes them: letter, accidental and octave. */
import { pitchClassOf, spellPitchClass, type Key } from '../../theory';
import type { MidiNote } from '../../units';
import { childOf, element, textOf, type Element } from './xml';

const SEMITONES: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
const ALTERS: Readonly<Record<string, number>> = { '#': 1, b: -1 };

/** Step, alter and octave, each with this before its name: '', 'tuning-', 'root-'. */
export function spelled(
  midi: MidiNote,
  key: Key | null,
): { readonly step: string; readonly alter: number; readonly octave: number } {
  const name = spellPitchClass(pitchClassOf(midi), key);
  const alter = ALTERS[name.slice(1)] ?? 0;
  return { step: name.charAt(0), alter, octave: Math.floor((midi - alter) / 12) - 1 };
}

export function pitchElement(midi: MidiNote, key: Key | null): Element {
  const { step, alter, octave } = spelled(midi, key);
  return element(
    'pitch',
    {},
    element('step', {}, step),
    alter === 0 ? null : element('alter', {}, alter),
    element('octave', {}, octave),
  );
}

/** Null for what is no pitch. */
export function midiFrom(parent: Element | null, prefix = ''): MidiNote | null {
  const [step, alter, octave] = ['step', 'alter', 'octave'].map((n) => textOf(childOf(parent, prefix + n)));
  const semitones = SEMITONES[step];
  const midi = 12 * (Number(octave) + 1) + semitones + (Number(alter) || 0);
  return octave === '' || !Number.isFinite(midi) ? null : Math.round(midi);
}
