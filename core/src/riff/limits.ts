/**
 * How large a document may be, each limit once: edits stay within them, the schema at the borders and the fields on screen
 * are made of them. A document over a limit is a mistake or an attack; no song that is played comes near.
 */
import { MAX_FRET } from '../guitar';
import { TICKS_PER_QUARTER } from '../units';

/** Longest texts, in UTF-16 code units as browsers count `maxlength`. */
export const TEXT_LIMITS = {
  id: 80,
  title: 200,
  artist: 200,
  /** Of riffs, sections, variations and groups; also how a section sounds. */
  name: 80,
  loopName: 100,
  tuningName: 40,
  /** A, B … ZZZZ. */
  letter: 4,
  /** Of strums and bars. */
  note: 1000,
  /** How a strum is struck and its notes, three digits each. */
  written: 80,
} as const;

/** Most of each. */
export const COUNT_LIMITS = {
  recordings: 20,
  loops: 200,
  riffs: 200,
  sections: 1000,
  beats: 20_000,
  bars: 10_000,
  barsOfRiff: 1000,
  /** Of a riff or a variation, for each guitar. */
  strums: 20_000,
  variations: 100,
  barNotes: 1000,
  groups: 1000,
  passes: 1000,
  answers: 2000,
  /** Of a section: its passes times the strums of a long riff. */
  settled: 20_000,
  strings: 12,
} as const;

/** Beats of a bar. */
const MOST_BEATS = 32;

/** Lowest and highest value. */
export const RANGES = {
  /** The recording before its first beat, and half an hour twice. */
  timeS: [-10, 3600],
  midiNote: [0, 127],
  capo: [0, 12],
  fret: [0, MAX_FRET],
  referenceOffsetCents: [-100, 100],
  beats: [1, MOST_BEATS],
  /** Of the longest riff that the other limits allow, in half notes. */
  ticks: [0, COUNT_LIMITS.barsOfRiff * MOST_BEATS * 2 * TICKS_PER_QUARTER],
  transpose: [-24, 24],
  bendCents: [0, 400],
} as const;

export function isWithin(value: number, [least, most]: readonly [number, number]): boolean {
  return value >= least && value <= most;
}

/** NUL and halves of surrogate pairs, which no database of text can store; a cut in the middle of a pair leaves one. */
const UNSTORABLE = /[\0\p{Cs}]/gu;

/** Trimmed, without what can't be stored, and cut to a length without leaving half of a character that takes two units. */
export function fitText(text: string, limit: number): string {
  return text.replace(UNSTORABLE, '').trim().slice(0, limit).replace(UNSTORABLE, '').trim();
}
