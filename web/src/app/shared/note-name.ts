/** Notes with their octave, and lists of them. */
import { pitchClassOf, spellPitchClass, type Key } from '@wild-needle/core/theory';

/** 'G2' in scientific pitch notation. */
export function noteName(midi: number, key: Key | null): string {
  return spellPitchClass(pitchClassOf(midi), key) + String(Math.floor(midi / 12) - 1);
}

/** 'E2 and B2' */
export function noteNames(notes: readonly number[], key: Key | null): string {
  return new Intl.ListFormat('en-GB').format(notes.map((midi) => noteName(midi, key)));
}
