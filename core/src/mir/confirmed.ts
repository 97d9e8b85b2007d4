/**
 * What the user has confirmed by ear, for hearing the rest of the song better: inside of its spans the strokes are those
 * that it names and no others, and each sounds the notes that it names. Outside, the same song is played on the same
 * guitar, so kinds of stroke and shapes of chord that the networks mistook inside are corrected by as much everywhere
 * (`strokes/confirmed-strokes.ts`, `chords/confirmed-chords.ts`).
 */
import type { MidiNote } from '../units';

export interface ConfirmedStrum {
  readonly timeS: number;
  /** Sounding notes, lowest first; empty for a dead stroke. */
  readonly midi: readonly MidiNote[];
  readonly palmMuted: boolean;
  readonly dead: boolean;
}

export interface Confirmed {
  /** Pitch of the recording that the notes are counted from; measured anew when null. */
  readonly referenceCents: number | null;
  readonly spans: readonly { readonly startS: number; readonly endS: number }[];
  /** In order of time; those outside of all spans count too. */
  readonly strums: readonly ConfirmedStrum[];
}

export const NOTHING_CONFIRMED: Confirmed = { referenceCents: null, spans: [], strums: [] };

/** What is confirmed of a candidate: the strum that it is, `'none'` where nothing is struck, null where nothing is known. */
export type Annotation = ConfirmedStrum | 'none' | null;
