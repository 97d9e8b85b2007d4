/**
 * A tab moved to another tuning, capo or number of strings: the same sound, other frets. What was written stays with each strum
 * (`Strum.writtenAs`) until the user writes on: every further move starts from it, so that a way there and back changes
 * nothing, and what one tuning can't play comes back with one that can.
 */
import { chooseVoicings, soundingNotes, writtenVoicings, type Tuning, type Voicing } from '../guitar';
import type { MidiNote, Ticks } from '../units';
import type { Riff, SongDocument, Strum, WrittenAs } from './document';

function isSameTuning(a: Tuning, b: Tuning): boolean {
  return a.capo === b.capo && a.stringsMidi.join() === b.stringsMidi.join();
}

/** Leaves out as few notes as it must: the lowest first, since a tuning that is too high lacks those. */
function findPlayable(notes: readonly MidiNote[], tuning: Tuning): readonly Voicing[] {
  for (let count = notes.length; count > 0; count--) {
    for (const from of [notes.length - count, 0]) {
      const voicings = writtenVoicings(notes.slice(from, from + count), tuning);
      if (voicings.length > 0) return voicings;
    }
  }
  return [];
}

/** Strums that stand in one tuning as they are played in another. */
export function retuneStrums(strums: readonly Strum[], from: Tuning, to: Tuning): Strum[] {
  const written = strums.map((s): WrittenAs => s.writtenAs ?? { tuning: from, frets: s.frets });
  const playable = written.map(({ tuning, frets }) => findPlayable(soundingNotes(tuning, frets), to));
  const chosen = chooseVoicings(playable);
  return strums.map((strum, k): Strum => {
    const { tuning, frets } = written[k];
    if (frets.length === 0) return strum;
    if (isSameTuning(tuning, to)) return strum.writtenAs ? { ...strum, frets, writtenAs: null } : strum;
    return { ...strum, frets: chosen[k]?.frets ?? [], writtenAs: written[k] };
  });
}

/** The document in another tuning of its first guitar. */
export function retune(document: SongDocument, tuning: Tuning): SongDocument {
  const moved = (strums: readonly Strum[]): Strum[] => retuneStrums(strums, document.tuning, tuning);
  const riffs = document.riffs.map((riff) => ({
    ...riff,
    strums: moved(riff.strums),
    variations: riff.variations.map((v) => ({ ...v, strums: moved(v.strums) })),
  }));
  return { ...document, tuning, riffs };
}

/** Notes of a strum that its tuning can't play where it was moved to, lowest first; they come back with one that can. */
export function lostNotes({ frets, writtenAs }: Strum, tuning: Tuning): MidiNote[] {
  if (!writtenAs) return [];
  const left = soundingNotes(tuning, frets);
  return soundingNotes(writtenAs.tuning, writtenAs.frets).filter((note) => {
    const at = left.indexOf(note);
    if (at >= 0) left.splice(at, 1);
    return at < 0;
  });
}

/** What the tuning of the first guitar can't play is given up: the strums are written as they stand. */
export function leaveOutLost(document: SongDocument): SongDocument {
  const standing = (strums: readonly Strum[]): Strum[] =>
    strums.map((s) => (lostNotes(s, document.tuning).length > 0 ? { ...s, writtenAs: null } : s));
  if (allLostNotes(document).length === 0) return document;
  const riffs = document.riffs.map((riff) => ({
    ...riff,
    strums: standing(riff.strums),
    variations: riff.variations.map((v) => ({ ...v, strums: standing(v.strums) })),
  }));
  return { ...document, riffs };
}

export interface LostNotes {
  readonly riff: Riff;
  /** Name of the variation that the strum stands in; null for the riff itself. */
  readonly variation: string | null;
  readonly strumId: string;
  readonly ticks: Ticks;
  readonly notes: readonly MidiNote[];
}

/** All that the tuning of the first guitar can't play, in order of the riffs. */
export function allLostNotes({ riffs, tuning }: SongDocument): LostNotes[] {
  const inList = (riff: Riff, strums: readonly Strum[], variation: string | null): LostNotes[] =>
    strums.flatMap((strum) => {
      const notes = lostNotes(strum, tuning);
      return notes.length > 0 ? [{ riff, variation, strumId: strum.id, ticks: strum.startTicks, notes }] : [];
    });
  return riffs.flatMap((riff) => [
    ...inList(riff, riff.strums, null),
    ...riff.variations.flatMap((v) => inList(riff, v.strums, v.name)),
  ]);
}
