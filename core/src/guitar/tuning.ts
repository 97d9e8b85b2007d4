/** A tuning: what each open string sounds, and where a capo sits. */
import type { MidiNote, StringNumber } from '../units';
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

/** What the tuning is called on screen: 'Drop D, capo 2'. */
export function tuningLabel({ name, capo }: Tuning): string {
  const label = TUNINGS.find((t) => t.name === name)?.label ?? 'Custom tuning';
  return capo > 0 ? `${label}, capo ${capo}` : label;
}
