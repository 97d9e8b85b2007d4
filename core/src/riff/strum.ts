/** What a written strum is: the notes it sounds, the direction of its stroke, whether it is struck at all. */
import { harmonicInterval, soundingNotes, type Tuning } from '../guitar';
import { TICKS_PER_QUARTER, type MidiNote } from '../units';
import type { Riff, SongDocument, Strum } from './document';
import { barStartsTicks } from './grid';

/** Nothing is written yet: a place that was tapped, or one that a new tuning can't play. */
export function isBlank({ frets, dead, rest }: Strum): boolean {
  return frets.length === 0 && !dead && !rest;
}

/** Struck by the pick: neither a rest nor reached by slide, hammer-on or tie. */
export function isStruck({ rest, marks }: Strum): boolean {
  return !rest && marks.join === null;
}

/** Sounding notes, lowest first; none for a dead stroke and a rest. A pinch harmonic counts as the note it is struck on. */
export function strumNotes(strum: Strum, tuning: Tuning): MidiNote[] {
  if (strum.dead || strum.rest) return [];
  if (strum.marks.harmonic !== 'natural') return soundingNotes(tuning, strum.frets);
  return strum.frets
    .map(({ string, fret }) => soundingNotes(tuning, [{ string, fret: 0 }])[0] + harmonicInterval(fret))
    .sort((a, b) => a - b);
}

/** Places that a hand which goes down on every eighth strikes upwards: the sixteenths between them. */
const EIGHTH = TICKS_PER_QUARTER / 2;

/**
 * Direction of the stroke. Where nothing is marked, what lies on the eighths goes down and what lies between them up; a
 * triplet alternates from its beat on (common practice of alternate picking over a steady hand). Null when not struck.
 */
export function strokeOf(riff: Riff, strum: Strum): 'down' | 'up' | null {
  if (!isStruck(strum)) return null;
  if (strum.marks.stroke !== null) return strum.marks.stroke;
  const start = barStartsTicks(riff).findLast((t) => t <= strum.startTicks) ?? 0;
  const at = strum.startTicks - start;
  if (at % EIGHTH === 0) return 'down';
  const third = TICKS_PER_QUARTER / 3;
  if (at % third === 0) return Math.round((at % TICKS_PER_QUARTER) / third) % 2 === 0 ? 'down' : 'up';
  return 'up';
}

/** How many strums of both guitars are written, and how many of them were checked against the recording. */
export function checkedCount({ riffs }: SongDocument): {
  readonly checked: number;
  readonly written: number;
} {
  const strums = riffs.flatMap((riff) => [...riff.strums, ...riff.guitar2]);
  return { checked: strums.filter((s) => s.trust === 'checked').length, written: strums.length };
}
