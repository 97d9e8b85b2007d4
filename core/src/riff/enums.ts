/** What a field of a document may be, each list once: types, edits and the schema at the borders are made of them. */

/** Note values that a beat may have: half, quarter, eighth, sixteenth. */
export const UNITS = [2, 4, 8, 16] as const;
export type Unit = (typeof UNITS)[number];

/** Where a strum's chord comes from: measured, written by hand, or confirmed against the recording. */
export const TRUSTS = ['guessed', 'heard', 'checked'] as const;
export type Trust = (typeof TRUSTS)[number];

/** What the guitar is tuned to: A4 = 440 Hz, the recording then corrected in playing, or the recording as it is. */
export const TUNE_TO = ['concert', 'recording'] as const;
export type TuneTo = (typeof TUNE_TO)[number];

/** How a strum is reached from the one before without a new stroke: 'hammer' is a pull-off where the fret falls. */
export const JOINS = ['slide', 'hammer', 'tie'] as const;
export const SLIDES_IN = ['below', 'above'] as const;
export const SLIDES_OUT = ['down', 'up'] as const;
/** 'ring': on under what follows; 'short': stopped at once. */
export const LENGTHS = ['ring', 'short'] as const;
export const HARMONICS = ['natural', 'pinch'] as const;
export const WHAMMY_MOVES = ['dip', 'dive'] as const;
export const STROKES = ['down', 'up'] as const;

/** Whether a number is the note value of a beat. */
export function isUnit(unit: number): unit is Unit {
  return UNITS.some((u) => u === unit);
}
