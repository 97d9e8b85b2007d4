/**
 * Notes that no string has. An amplifier driven hard adds to two notes f1 < f2 the tone 2 f1 − f2 among others; under a fourth,
 * 3 to 4, that is the octave below its upper note, so an inverted fifth sounds as the power chord on the root below it.
 * Where the guitar does not reach that low, it was the inverted fifth.
 */
import type { MidiNote } from '../units';

/** Semitones over the lowest note of an inverted fifth. */
const INVERTED = ['0,5', '0,5,12'];

/** What is left of `midi`, lowest first, over the `lowest` note that the guitar has; null unless something goes and an inverted fifth is left. */
export function drivenFourthIn(midi: readonly MidiNote[], lowest: MidiNote): readonly MidiNote[] | null {
  const left = midi.filter((note) => note >= lowest);
  const isInverted = INVERTED.includes(left.map((note) => note - left[0]).join());
  return left.length < midi.length && isInverted ? left : null;
}
