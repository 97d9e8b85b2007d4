/**
 * Names for the quantities that are easy to mix up. The aliases document; the two clocks are also
 * kept apart by name everywhere: `…Ticks` in documents, `…S` (seconds) in audio, and only the
 * beat grid (`riff/grid.ts`) converts between them.
 */

/** Sounding pitch as a MIDI note number, 60 = C4, 69 = A4 (scientific pitch notation). */
export type MidiNote = number;

/** Pitch class 0 to 11, C = 0. */
export type PitchClass = number;

/** String number as players count: 1 is the highest-sounding string. */
export type StringNumber = number;

/** Musical time in documents: integers, {@link TICKS_PER_QUARTER} to a quarter note. */
export type Ticks = number;

/** Resolution of written time; 960 divides into triplets, sextuplets and 64ths without remainder. */
export const TICKS_PER_QUARTER = 960;
