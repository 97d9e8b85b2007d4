/**
 * The document: one transcribed song. Riffs are written once, in ticks from their own start; sections say when
 * they are played, in bars of the recording's beat grid. Sounding notes are never stored: they follow from
 * tuning, string and fret (`guitar/soundingNotes`).
 */
import { STANDARD_TUNING, type StringFret, type Tuning } from '../guitar';
import type { Key, Meter } from '../theory';
import type { Ticks } from '../units';
import type { SettledAnswer, Trust, TuneTo, Unit } from './enums';
import { NO_MARKS, type Marks } from './marks/fields';

/** Version of this shape; `contract` upgrades older documents on reading. */
export const DOCUMENT_SCHEMA = 'wild-needle/song@2';

export interface SongDocument {
  readonly schema: typeof DOCUMENT_SCHEMA;
  readonly title: string;
  readonly artist: string;
  readonly tuning: Tuning;
  /** Tuning of the second guitar; null while there is one. `swapGuitars` shows the song as that one plays it. */
  readonly guitar2: Tuning | null;
  readonly tuneTo: TuneTo;
  readonly key: Key | null;
  /** How far the recording sounds above A4 = 440 Hz. */
  readonly referenceOffsetCents: number;
  readonly recordings: readonly RecordingRef[];
  /** Places of the recording that are come back to. */
  readonly loops: readonly NamedLoop[];
  readonly grid: BeatGrid;
  readonly riffs: readonly Riff[];
  /** In order of time, not overlapping. */
  readonly sections: readonly Section[];
}

export interface RecordingRef {
  readonly id: string;
  /** Exactly one recording of a song is the reference that times are measured in. */
  readonly isReference: boolean;
}

export interface NamedLoop {
  readonly id: string;
  readonly name: string;
  readonly startS: number;
  readonly endS: number;
}

/** Where the beats are in the recording. */
export interface BeatGrid {
  /** Ascending. */
  readonly beatsS: readonly number[];
  /** Bars in order; each begins on a beat. */
  readonly bars: readonly Bar[];
}

export interface Bar extends Meter {
  /** Index into `beatsS`. */
  readonly beat: number;
  readonly beats: number;
  readonly unit: Unit;
}

export interface Section {
  readonly id: string;
  readonly name: string;
  /** Null for a part without a riff, as talk, a solo or feedback; its passes are bars. */
  readonly riffId: string | null;
  /** Index into the grid's bars. */
  readonly startBar: number;
  /** Passes of the riff that it begins, see `section-span.ts`. */
  readonly passes: number;
  /** Bars that the first pass lacks at its start, and the last one at its end. */
  readonly skipBars: number;
  readonly cutBars: number;
  /** Semitones that the riff is moved up here. */
  readonly transpose: number;
  /** What was decided about passes that differ; passes without an answer are played as written. */
  readonly answers: readonly PassAnswer[];
  /** 'clean', 'distorted', or what else the player notes of the sound; '' for nothing. */
  readonly tone: string;
  /** As the user says; null where it is the one that was heard. */
  readonly key: Key | null;
  /** The user has said that it begins here; the analysis may doubt it. */
  readonly startIsConfirmed: boolean;
  /** What the ear has settled in its passes, oldest first; see `settled.ts`. */
  readonly settled: readonly SettledStrum[];
}

/** An answer to whether what is written at one place of one pass is what the recording plays. */
export interface SettledStrum {
  /** 0 for the first pass of the section. */
  readonly pass: number;
  /** Whose tab it is about. */
  readonly guitar: 1 | 2;
  readonly ticks: Ticks;
  /** What was written there; '' for nothing. */
  readonly written: string;
  readonly answer: SettledAnswer;
}

/** A pass that was compared with the riff and decided. */
export interface PassAnswer {
  /** 0 for the first pass of the section. */
  readonly pass: number;
  /** What is played instead; null = the riff as it is written, whatever was heard. */
  readonly variationId: string | null;
}

/** Time signature of a bar of a riff. */
export interface RiffBar extends Meter {
  readonly unit: Unit;
}

export interface Riff {
  readonly id: string;
  /** A, B, C … */
  readonly letter: string;
  readonly name: string;
  /** Time signatures of its bars. */
  readonly bars: readonly RiffBar[];
  /** In order of time. */
  readonly strums: readonly Strum[];
  /** What the second guitar plays; empty when it doubles the first or there is none. */
  readonly guitar2: readonly Strum[];
  /** Other ways that parts of the riff are played: endings, a skipped stroke. */
  readonly variations: readonly Variation[];
  readonly barNotes: readonly BarNote[];
  /** Named parts inside the riff, as 'turn'; in order, not overlapping. */
  readonly groups: readonly BarGroup[];
}

/** Takes the place of the riff between two of its instants. One that reaches the riff's end is an ending. */
export interface Variation {
  readonly id: string;
  readonly name: string;
  readonly fromTicks: Ticks;
  readonly toTicks: Ticks;
  readonly strums: readonly Strum[];
  readonly guitar2: readonly Strum[];
}

export interface BarNote {
  /** 0 for the first bar of the riff. */
  readonly bar: number;
  readonly text: string;
  /** Is still to be done; otherwise a remark. */
  readonly todo: boolean;
}

export interface BarGroup {
  readonly name: string;
  readonly startBar: number;
  readonly bars: number;
}

/** What was written before the tab was moved to another tuning. */
export interface WrittenAs {
  readonly tuning: Tuning;
  readonly frets: readonly StringFret[];
}

export interface Strum {
  readonly id: string;
  readonly startTicks: Ticks;
  /** How long it sounds; at least 1. */
  readonly durationTicks: Ticks;
  /** Strings that are pressed or open. Empty for a dead stroke over all strings, a rest, and while nothing is written. */
  readonly frets: readonly StringFret[];
  /** Null where it stands as it was written; see `retune.ts`. */
  readonly writtenAs: WrittenAs | null;
  readonly palmMute: boolean;
  readonly dead: boolean;
  /** Nothing is struck here, and what sounded before is stopped. */
  readonly rest: boolean;
  readonly marks: Marks;
  /** What the player wants to remember of it. */
  readonly note: string;
  readonly trust: Trust;
}

/** What a strum has before anything is known of it. */
export const PLAIN_STRUM = {
  frets: [],
  writtenAs: null,
  palmMute: false,
  dead: false,
  rest: false,
  marks: NO_MARKS,
  note: '',
} as const satisfies Partial<Strum>;

/** What a riff has besides its strums before anything is added. */
export const PLAIN_RIFF = {
  guitar2: [],
  variations: [],
  barNotes: [],
  groups: [],
} as const satisfies Partial<Riff>;

/** What a section has before anything is decided about its passes. */
export const PLAIN_SECTION = {
  skipBars: 0,
  cutBars: 0,
  answers: [],
  tone: '',
  key: null,
  startIsConfirmed: false,
  settled: [],
} as const satisfies Partial<Section>;

/** A song before anything was heard or written. */
export const PLAIN_SONG = {
  schema: DOCUMENT_SCHEMA,
  title: '',
  artist: '',
  tuning: STANDARD_TUNING,
  guitar2: null,
  key: null,
  referenceOffsetCents: 0,
  recordings: [],
  tuneTo: 'concert',
  loops: [],
  grid: { beatsS: [], bars: [] },
  riffs: [],
  sections: [],
} as const satisfies SongDocument;
