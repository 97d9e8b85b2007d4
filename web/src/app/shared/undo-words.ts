/** What an undo or a redo changed: in words, and where it can be looked at. */
import type { Riff, SongDocument, Strum } from '@wild-needle/core/riff';
import { placeWords } from './difference-words';

export interface Change {
  /** 'Verse riff, bar 2, 3 &' */
  readonly words: string;
  /** Where strums changed; null for what is no riff. */
  readonly riffId: string | null;
  readonly strumId: string | null;
}

/** Parts of a song that are not riffs, as they are called. */
const PARTS = [
  ['grid', 'beats and bars'],
  ['sections', 'sections'],
  ['tuning', 'tuning'],
  ['guitar2', 'second guitar'],
  ['tuneTo', 'pitch'],
  ['referenceOffsetCents', 'pitch'],
  ['key', 'key'],
  ['loops', 'loops'],
  ['title', 'title'],
  ['artist', 'artist'],
] as const satisfies readonly (readonly [keyof SongDocument, string])[];

function strumsOf(riff: Riff): Strum[] {
  return [...riff.strums, ...riff.variations.flatMap((v) => v.strums)];
}

/** The first strum that one of two states of a riff has otherwise than the other. */
function changedStrum(before: Riff, after: Riff): Strum | null {
  const [was, is] = [strumsOf(before), strumsOf(after)];
  const old = new Map(was.map((s) => [s.id, s]));
  const ids = new Set(is.map((s) => s.id));
  return is.find((s) => old.get(s.id) !== s) ?? was.find((s) => !ids.has(s.id)) ?? null;
}

/** What became of `before`; null where nothing that is seen changed. */
export function changeBetween(before: SongDocument, after: SongDocument): Change | null {
  const riff = after.riffs.find((r) => before.riffs.find((b) => b.id === r.id) !== r);
  const lost = before.riffs.find((b) => !after.riffs.some((r) => r.id === b.id));
  const parts = PARTS.filter(([part]) => before[part] !== after[part]).map(([, words]) => words);
  const told = [...new Set(parts)].join(', ');
  if (!riff) {
    const words = lost ? `riff ${lost.letter} is gone` : told;
    return words === '' ? null : { words, riffId: null, strumId: null };
  }
  const was = before.riffs.find((b) => b.id === riff.id);
  const strum = was ? changedStrum(was, riff) : null;
  const isThere = strum !== null && strumsOf(riff).some((s) => s.id === strum.id);
  const place = strum ? placeWords(riff, strum.startTicks) : was ? '' : 'is back';
  return {
    words: [riff.name || `riff ${riff.letter}`, place].filter((w) => w !== '').join(', '),
    riffId: riff.id,
    strumId: isThere ? strum.id : null,
  };
}
