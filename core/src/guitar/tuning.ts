/** A tuning: what each open string sounds, and where a capo sits. */
import type { MidiNote, StringNumber } from '../units';
import { parseNote } from '../theory';
import { TUNINGS } from './tunings.data';

export interface Tuning {
  /** Name from `tunings.data.ts`, or 'custom'. */
  readonly name: string;
  /** Sounding note of each open string without the capo, lowest string first. */
  readonly stringsMidi: readonly MidiNote[];
  /** Fret of the capo, 0 = none. Frets in a tab count from it. */
  readonly capo: number;
}

/** One string pressed (fret 0 = open); frets count from the capo. */
export interface StringFret {
  readonly string: StringNumber;
  readonly fret: number;
}

/** Highest fret written, the usual end of a rock guitar's neck. */
export const MAX_FRET = 24;

export const STANDARD_TUNING: Tuning = { name: 'standard', stringsMidi: TUNINGS[0].strings, capo: 0 };

/** Sounding note of a string at a fret. Throws a RangeError for a string that the tuning does not have. */
export function soundingNote(tuning: Tuning, { string, fret }: StringFret): MidiNote {
  const open = tuning.stringsMidi[tuning.stringsMidi.length - string];
  if (open === undefined) {
    throw new RangeError(`string must be from 1 to ${tuning.stringsMidi.length}, but was ${string}`);
  }
  return open + tuning.capo + fret;
}

/** Sounding notes of a strum, lowest first. */
export function soundingNotes(tuning: Tuning, frets: readonly StringFret[]): MidiNote[] {
  return frets.map((f) => soundingNote(tuning, f)).sort((a, b) => a - b);
}

/** Names that a tuning is entered with, at most: string count of the widest guitars. */
const MOST_STRINGS = 12;

/**
 * A tuning entered as its open strings, lowest first: `D2,A2,D3,G3,B3,E4`. Unison pairs are allowed. Known ones get
 * their name. Throws a RangeError that says which string can't be read.
 */
export function parseTuning(text: string): Tuning {
  const names = text.split(',').map((name) => name.trim());
  const stringsMidi = names.map((name) => {
    const midi = parseNote(name);
    if (midi === null || midi < 0 || midi > 127) {
      throw new RangeError(`a string must be a note such as E2 or Bb1, but was "${name}"`);
    }
    return midi;
  });
  if (stringsMidi.length > MOST_STRINGS) {
    throw new RangeError(
      `a tuning has at most ${MOST_STRINGS} strings, but ${stringsMidi.length} were given`,
    );
  }
  const known = TUNINGS.find((t) => t.strings.join() === stringsMidi.join());
  return { name: known?.name ?? 'custom', stringsMidi, capo: 0 };
}

/** What the tuning is called on screen: 'Drop D, capo 2'. */
export function tuningLabel({ name, capo }: Tuning): string {
  const label = TUNINGS.find((t) => t.name === name)?.label ?? 'Custom tuning';
  return capo > 0 ? `${label}, capo ${capo}` : label;
}
