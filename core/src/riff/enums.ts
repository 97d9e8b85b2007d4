/** What a field of a document may be, each list once: types, edits and the schema at the borders are made of them. */

/** Note values that a beat may have: half, quarter, eighth, sixteenth. */
export const UNITS = [2, 4, 8, 16] as const;
export type Unit = (typeof UNITS)[number];

/** Where a strum's chord comes from: measured, written by hand or confirmed against the recording, or left in doubt by the ear. */
export const TRUSTS = ['guessed', 'heard', 'checked', 'doubtful'] as const;
export type Trust = (typeof TRUSTS)[number];

/** What the ear says of a written strum: it stands as it is written, or it is left for later. */
export const SETTLED_ANSWERS = ['kept', 'doubtful'] as const;
export type SettledAnswer = (typeof SETTLED_ANSWERS)[number];

/** What the guitar is tuned to: A4 = 440 Hz, the recording then corrected in playing, or the recording as it is. */
export const TUNE_TO = ['concert', 'recording'] as const;
export type TuneTo = (typeof TUNE_TO)[number];

/** Whether a number is the note value of a beat. */
export function isUnit(unit: number): unit is Unit {
  return UNITS.some((u) => u === unit);
}
