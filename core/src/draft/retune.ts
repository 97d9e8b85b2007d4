/** A finished tab moved to another tuning or capo: the same sound, other frets. */
import { candidateVoicings, chooseVoicings, soundingNotes, type Tuning, type Voicing } from '../guitar';
import type { Riff, SongDocument, Strum } from '../riff';
import type { MidiNote } from '../units';

export interface LostNotes {
  readonly riffId: string;
  readonly strumId: string;
  /** Sounding notes that the new tuning can't play there. */
  readonly notes: readonly MidiNote[];
}

export interface Retuned {
  readonly document: SongDocument;
  readonly lost: readonly LostNotes[];
}

interface Playable {
  readonly voicings: readonly Voicing[];
  readonly lost: readonly MidiNote[];
}

/** Leaves out as few notes as it must: the lowest first, since a tuning that is too high lacks those. */
function findPlayable(notes: readonly MidiNote[], tuning: Tuning): Playable {
  for (let count = notes.length; count > 0; count--) {
    for (const from of [notes.length - count, 0]) {
      const kept = notes.slice(from, from + count);
      const voicings = candidateVoicings(kept, tuning);
      if (voicings.length > 0) return { voicings, lost: notes.filter((n) => !kept.includes(n)) };
    }
  }
  return { voicings: [], lost: notes };
}

function retuneStrums(
  strums: readonly Strum[],
  riffId: string,
  from: Tuning,
  to: Tuning,
): { strums: Strum[]; lost: LostNotes[] } {
  const playable = strums.map((strum) => findPlayable(soundingNotes(from, strum.frets), to));
  const chosen = chooseVoicings(playable.map((p) => p.voicings));
  const retuned = strums.map((strum, k): Strum => {
    const { lost } = playable[k];
    if (strum.frets.length === 0) return strum;
    return { ...strum, frets: chosen[k]?.frets ?? [], trust: lost.length > 0 ? 'guessed' : strum.trust };
  });
  const lost = playable.flatMap((p, k) =>
    p.lost.length > 0 ? [{ riffId, strumId: strums[k].id, notes: p.lost }] : [],
  );
  return { strums: retuned, lost };
}

/** The document in another tuning of its first guitar. Strums that lose notes keep the others and count as guessed. */
export function retune(document: SongDocument, tuning: Tuning): Retuned {
  const lost: LostNotes[] = [];
  const move = (strums: readonly Strum[], riff: Riff): Strum[] => {
    const moved = retuneStrums(strums, riff.id, document.tuning, tuning);
    lost.push(...moved.lost);
    return moved.strums;
  };
  const riffs = document.riffs.map((riff) => ({
    ...riff,
    strums: move(riff.strums, riff),
    variations: riff.variations.map((v) => ({ ...v, strums: move(v.strums, riff) })),
  }));
  return { document: { ...document, tuning, riffs }, lost };
}
