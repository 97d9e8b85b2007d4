/**
 * Shapes that the hand keeps while it moves: the usual ones of power chords, and the player's own. A shape stands on its
 * root: a string and a fret.
 */
import type { StringNumber } from '../units';
import { MAX_FRET, type StringFret, type Tuning } from './tuning';

export interface PowerShape {
  readonly id: string;
  readonly name: string;
  /**
   * Notes of the shape: how many strings above the root's (negative = thicker), and how many semitones above the root. The fret
   * follows from the tuning; a shape of one finger has the root's fret on every string instead.
   */
  readonly notes: readonly { readonly strings: number; readonly semitones: number | 'same-fret' }[];
}

const note = (strings: number, semitones: number | 'same-fret'): PowerShape['notes'][number] => ({
  strings,
  semitones,
});

/** In the order of their keys, 1 to 8. Common practice of rock guitar. */
export const POWER_SHAPES: readonly PowerShape[] = [
  { id: 'two-strings', name: 'Two strings', notes: [note(0, 0), note(1, 7)] },
  { id: 'three-strings', name: 'Three strings', notes: [note(0, 0), note(1, 7), note(2, 12)] },
  { id: 'fifth-below', name: 'Inverted (fifth in the bass)', notes: [note(-1, -5), note(0, 0)] },
  { id: 'flat-five', name: 'Flat five', notes: [note(0, 0), note(1, 6)] },
  { id: 'octave', name: 'Octave', notes: [note(0, 0), note(2, 12)] },
  { id: 'sus2', name: 'Sus2', notes: [note(0, 0), note(1, 7), note(2, 14)] },
  { id: 'sus4', name: 'Sus4', notes: [note(0, 0), note(1, 7), note(2, 12), note(3, 17)] },
  {
    id: 'one-finger',
    name: 'One finger',
    notes: [note(0, 'same-fret'), note(1, 'same-fret'), note(2, 'same-fret')],
  },
];

/**
 * A shape of the player's own: distances from its root in strings, and in frets and semitones in the tuning that it was kept in.
 * Another tuning plays the same semitones. Shapes of older programs have frets alone.
 */
export interface OwnShape {
  readonly id: string;
  readonly name: string;
  readonly notes: readonly {
    readonly strings: number;
    readonly frets: number;
    readonly semitones?: number | undefined;
  }[];
}

function openMidi({ stringsMidi }: Tuning, string: StringNumber): number {
  return stringsMidi[stringsMidi.length - string];
}

function onNeck(frets: readonly StringFret[], tuning: Tuning): StringFret[] | null {
  const strings = tuning.stringsMidi.length;
  const fits = frets.every((f) => f.string >= 1 && f.string <= strings && f.fret >= 0 && f.fret <= MAX_FRET);
  return fits ? [...frets].sort((a, b) => b.string - a.string) : null;
}

/** The shape with its root there; null where the neck or the strings end. */
export function placeShape(shape: PowerShape, root: StringFret, tuning: Tuning): StringFret[] | null {
  return onNeck(
    shape.notes.map(({ strings, semitones }) => {
      const string = root.string - strings;
      const above =
        semitones === 'same-fret' ? 0 : semitones + openMidi(tuning, root.string) - openMidi(tuning, string);
      return { string, fret: root.fret + above };
    }),
    tuning,
  );
}

/** As {@link placeShape}, for a shape of the player's own. */
export function placeOwnShape(shape: OwnShape, root: StringFret, tuning: Tuning): StringFret[] | null {
  return onNeck(
    shape.notes.map(({ strings, frets, semitones }) => {
      const string = root.string - strings;
      const above =
        semitones === undefined
          ? frets
          : semitones + openMidi(tuning, root.string) - openMidi(tuning, string);
      return { string, fret: root.fret + above };
    }),
    tuning,
  );
}

/** What is pressed as a shape that can be moved; its root is the lowest string. Null for nothing. */
export function shapeOf(frets: readonly StringFret[], tuning: Tuning): OwnShape['notes'] | null {
  if (frets.length === 0) return null;
  const root = rootOf(frets);
  return [...frets]
    .sort((a, b) => b.string - a.string)
    .map((f) => ({
      strings: root.string - f.string,
      frets: f.fret - root.fret,
      semitones: openMidi(tuning, f.string) + f.fret - openMidi(tuning, root.string) - root.fret,
    }));
}

function rootOf(frets: readonly StringFret[]): StringFret {
  return frets.reduce((low, f) => (f.string > low.string ? f : low));
}

export function isOwnShape(shape: OwnShape, frets: readonly StringFret[], tuning: Tuning): boolean {
  const placed = frets.length === shape.notes.length && placeOwnShape(shape, rootOf(frets), tuning);
  const key = (list: readonly StringFret[]): string =>
    [...list]
      .sort((a, b) => b.string - a.string)
      .map((f) => `${f.string}:${f.fret}`)
      .join();
  return placed !== false && placed !== null && key(placed) === key(frets);
}
