/** What reading a file of tab or music gives: a song of its own, and what of the file could not be understood. */
import type { Tuning } from '../guitar';
import type { SongDocument } from '../riff';

/** Something that was left out or guessed. */
export interface Remark {
  /** Counted from 1; null where it is about the file as a whole. */
  readonly line: number | null;
  readonly column: number | null;
  readonly words: string;
}

/** A voice of the file that may be the guitar. */
export interface Track {
  readonly name: string;
  readonly notes: number;
}

export interface Brought {
  readonly document: SongDocument;
  readonly remarks: readonly Remark[];
  /** Of a file with several voices, all of them; empty otherwise. */
  readonly tracks: readonly Track[];
  /** Which of them is the guitar. */
  readonly track: number;
}

export interface ReadOptions {
  /** Notes without strings are fingered in it. */
  readonly tuning: Tuning;
  /** The voice that is read; the likeliest guitar when it is left out. */
  readonly track?: number;
}
