/**
 * Sets of notes that a strum may sound, as semitones over its lowest note; `rootAbove` is the root over that note.
 * The shapes are common practice of rock guitar: power chords of two to four strings, upright and with the fifth
 * below, octaves, and the closed and barre shapes of the other kinds. `null` stands for any other set, such as a power
 * chord with ringing open strings: its notes are read one by one. The order is that of the network's outputs.
 */
export const CHORD_SHAPES: readonly {
  readonly notes: readonly number[] | null;
  readonly rootAbove: number;
}[] = [
  { notes: [0], rootAbove: 0 },
  { notes: [0, 12], rootAbove: 0 },
  { notes: [0, 7], rootAbove: 0 },
  { notes: [0, 7, 12], rootAbove: 0 },
  { notes: [0, 7, 12, 19], rootAbove: 0 },
  { notes: [0, 5], rootAbove: 5 },
  { notes: [0, 5, 12], rootAbove: 5 },
  { notes: [0, 6], rootAbove: 0 },
  { notes: [0, 6, 12], rootAbove: 0 },
  { notes: [0, 8], rootAbove: 0 },
  { notes: [0, 8, 12], rootAbove: 0 },
  { notes: [0, 7, 14], rootAbove: 0 },
  { notes: [0, 7, 12, 14], rootAbove: 0 },
  { notes: [0, 7, 12, 17], rootAbove: 0 },
  { notes: [0, 5, 7], rootAbove: 0 },
  { notes: [0, 7, 12, 17, 19, 24], rootAbove: 0 },
  { notes: [0, 7, 12, 16], rootAbove: 0 },
  { notes: [0, 7, 12, 16, 19], rootAbove: 0 },
  { notes: [0, 7, 12, 16, 19, 24], rootAbove: 0 },
  { notes: [0, 7, 12, 15], rootAbove: 0 },
  { notes: [0, 7, 12, 15, 19], rootAbove: 0 },
  { notes: [0, 7, 12, 15, 19, 24], rootAbove: 0 },
  { notes: [0, 5, 9], rootAbove: 5 },
  { notes: [0, 5, 8], rootAbove: 5 },
  { notes: [0, 5, 9, 12], rootAbove: 5 },
  { notes: [0, 4], rootAbove: 0 },
  { notes: [0, 3], rootAbove: 0 },
  { notes: [0, 9], rootAbove: 9 },
  { notes: null, rootAbove: 0 },
];
