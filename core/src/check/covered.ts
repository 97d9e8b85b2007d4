/**
 * What can't be told: notes that another instrument sounds at the same pitch. Guitars stand in the sides of most rock mixes, bass and
 * voice in the middle (common practice of mixing): a pitch that is loud there and not in the sides is theirs, and whether the guitar
 * plays it too is not to be heard.
 */
import { FIRST_HEARD_NOTE, type StagedLevels } from '../mir';
import type { MidiNote } from '../units';

export interface Cover {
  readonly by: 'bass' | 'voice';
  readonly notes: readonly MidiNote[];
}

/** Under C3 it is the bass; singers that go lower are rare (common practice). */
const VOICE_FROM: MidiNote = 48;
/** Of the loudest pitch in its part of the stage: loud enough to cover, and so soft that nobody plays it there. */
const LOUD = 0.6;
const SOFT = 0.15;

/** Who covers the notes in which tab and hearing differ; null where one of them can be told. */
export function coverOf(
  written: readonly MidiNote[],
  heard: readonly MidiNote[],
  { mid, side }: StagedLevels,
): Cover | null {
  const notes = [
    ...heard.filter((note) => !written.includes(note)),
    ...written.filter((note) => !heard.includes(note)),
  ].sort((a, b) => a - b);
  if (notes.length === 0 || !side) return null;
  const isCovered = (note: MidiNote): boolean => {
    const at = note - FIRST_HEARD_NOTE;
    return at >= 0 && (mid[at] ?? 0) >= LOUD && (side[at] ?? 0) <= SOFT;
  };
  if (!notes.every(isCovered)) return null;
  return { by: notes.every((note) => note < VOICE_FROM) ? 'bass' : 'voice', notes };
}
