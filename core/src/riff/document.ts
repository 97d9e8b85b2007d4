/**
 * The document: one transcribed song. Riffs are written once, in ticks from their own start; sections say when
 * they are played, in bars of the recording's beat grid. Sounding notes are never stored: they follow from
 * tuning, string and fret (`guitar/soundingNotes`).
 */
import type { Ticks } from '../units';
import type { StringFret, Tuning } from '../guitar';
import type { Key } from '../theory';

/** Version of this shape; `contract` upgrades older documents on reading. */
export const DOCUMENT_SCHEMA = 'wild-needle/song@1';

export interface SongDocument {
  readonly schema: typeof DOCUMENT_SCHEMA;
  readonly title: string;
  readonly artist: string;
  readonly tuning: Tuning;
  /** What the guitar is tuned to: A4 = 440 Hz, the recording then corrected in playing, or the recording as it is. */
  readonly tuneTo: 'concert' | 'recording';
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

export interface Bar {
  /** Index into `beatsS`. */
  readonly beat: number;
  readonly beats: number;
  /** Note value of a beat: 4 = quarter. */
  readonly unit: number;
}

export interface Section {
  readonly id: string;
  readonly name: string;
  readonly riffId: string;
  /** Index into the grid's bars. */
  readonly startBar: number;
  readonly passes: number;
  /** Semitones that the riff is moved up here. */
  readonly transpose: number;
}

export interface Riff {
  readonly id: string;
  /** A, B, C … */
  readonly letter: string;
  readonly name: string;
  /** Time signatures of its bars. */
  readonly bars: readonly { readonly beats: number; readonly unit: number }[];
  /** In order of time. */
  readonly strums: readonly Strum[];
}

/** Where a strum's chord comes from: measured, written by hand, or confirmed against the recording. */
export type Trust = 'guessed' | 'heard' | 'checked';

export interface Strum {
  readonly id: string;
  readonly startTicks: Ticks;
  /** How long it sounds; at least 1. */
  readonly durationTicks: Ticks;
  /** Strings that are pressed or open. Empty for a dead stroke over all strings. */
  readonly frets: readonly StringFret[];
  readonly palmMute: boolean;
  readonly dead: boolean;
  readonly trust: Trust;
}
