/** What a set of sounding notes is called, also where it has no common name: then it is said which notes it has. */
import { listInWords, type MidiNote } from '../units';
import { chordName, identifyChord } from './chord';
import { CHORD_KINDS } from './chord-kinds.data';
import { spellPitchClass, type Key } from './key';
import { pitchClassOf } from './pitch';

export interface NotesName {
  /** As it stands over a strum: `G5`, `E(b6)`. */
  readonly symbol: string;
  /** As it is spoken: `power chord`, `E with the flat sixth, no third`. */
  readonly words: string;
}

/** Degrees of the notes above a root, as chord symbols and words name them. */
const DEGREES: readonly (readonly [symbol: string, words: string])[] = [
  ['', 'root'],
  ['b9', 'flat ninth'],
  ['9', 'ninth'],
  ['m', 'minor third'],
  ['3', 'third'],
  ['4', 'fourth'],
  ['b5', 'flat fifth'],
  ['5', 'fifth'],
  ['b6', 'flat sixth'],
  ['6', 'sixth'],
  ['7', 'seventh'],
  ['maj7', 'major seventh'],
];

/** The name of sounding notes, spelled by the key; both '' for none. */
export function nameNotes(notes: readonly MidiNote[], key: Key | null): NotesName {
  const chord = identifyChord(notes);
  if (!chord) return { symbol: '', words: '' };
  if (chord.quality !== 'other') {
    const kind = CHORD_KINDS.find((k) => k.quality === chord.quality)?.words ?? '';
    const inverted =
      chord.bassPc === chord.rootPc ? '' : `, ${spellPitchClass(chord.bassPc, key)} in the bass`;
    return { symbol: chordName(chord, key), words: kind + inverted };
  }
  const above = [...new Set(notes.map((n) => (pitchClassOf(n) - chord.rootPc + 12) % 12))].sort(
    (a, b) => a - b,
  );
  const root = spellPitchClass(chord.rootPc, key);
  const hasThird = above.includes(3) || above.includes(4);
  const hasFifth = above.includes(7);
  // The fifth is taken for granted in a name; what is there beside it is told.
  const told = above.filter((i) => i !== 0 && i !== 7);
  const missing = [...(hasThird ? [] : ['third']), ...(hasFifth ? [] : ['fifth'])];
  return {
    symbol: `${root}(${told.map((i) => DEGREES[i][0]).join(',')})`,
    words:
      `${root} with the ${listInWords(told.map((i) => DEGREES[i][1]))}` +
      (missing.length > 0 ? `, no ${missing.join(' and no ')}` : ''),
  };
}
