/**
 * Two guitars in one document. The screens work on the song as one guitar plays it; for the other, the document is turned
 * round, changed and turned back.
 */
import type { Riff, Section, SongDocument, Strum } from './document';
import { retuneStrums } from './retune';

export type GuitarNumber = 1 | 2;

/** The song with its guitars exchanged; the same document while there is only one. Its own inverse. */
export function swapGuitars(document: SongDocument): SongDocument {
  if (document.guitar2 === null) return document;
  const turned = (riff: Riff): Riff => ({
    ...riff,
    strums: riff.guitar2,
    guitar2: riff.strums,
    variations: riff.variations.map((v) => ({ ...v, strums: v.guitar2, guitar2: v.strums })),
  });
  const turnedSection = (section: Section): Section =>
    section.settled.length === 0
      ? section
      : { ...section, settled: section.settled.map((s) => ({ ...s, guitar: s.guitar === 1 ? 2 : 1 })) };
  return {
    ...document,
    tuning: document.guitar2,
    guitar2: document.tuning,
    riffs: document.riffs.map(turned),
    sections: document.sections.map(turnedSection),
  };
}

/** The song as a guitar plays it; guitar 2 of a song with one is guitar 1. */
export function asGuitar(document: SongDocument, guitar: GuitarNumber): SongDocument {
  return guitar === 2 ? swapGuitars(document) : document;
}

/** Changes the song as one of its guitars plays it. */
export function changeAsGuitar(
  document: SongDocument,
  guitar: GuitarNumber,
  change: (document: SongDocument) => SongDocument,
): SongDocument {
  if (guitar === 1 || document.guitar2 === null) return change(document);
  const seen = swapGuitars(document);
  const changed = change(seen);
  return changed === seen ? document : swapGuitars(changed);
}

/** A second guitar, tuned as the first until it is told otherwise; it has nothing to play yet. */
export function addSecondGuitar(document: SongDocument): SongDocument {
  return document.guitar2 ? document : { ...document, guitar2: document.tuning };
}

/** Takes the second guitar and what it plays away. */
export function removeSecondGuitar(document: SongDocument): SongDocument {
  if (!document.guitar2) return document;
  const alone = (riff: Riff): Riff => ({
    ...riff,
    guitar2: [],
    variations: riff.variations.map((v) => ({ ...v, guitar2: [] })),
  });
  return { ...document, guitar2: null, riffs: document.riffs.map(alone) };
}

function inOrder(strums: readonly Strum[]): Strum[] {
  return [...strums].sort((a, b) => a.startTicks - b.startTicks);
}

/**
 * Gives strums of the first guitar to the second, as they sound; where it has one at the same place already, they stay. What its
 * tuning can't play is lost there and comes back as after any move, see `retune.ts`.
 */
export function giveToOther(
  document: SongDocument,
  riffId: string,
  strumIds: ReadonlySet<string>,
): SongDocument {
  const { guitar2, tuning } = document;
  if (!guitar2) return document;
  const riffs = document.riffs.map((riff): Riff => {
    if (riff.id !== riffId) return riff;
    const taken = new Set(riff.guitar2.map((s) => s.startTicks));
    const given = riff.strums.filter((s) => strumIds.has(s.id) && !taken.has(s.startTicks));
    if (given.length === 0) return riff;
    return {
      ...riff,
      strums: riff.strums.filter((s) => !given.includes(s)),
      guitar2: inOrder([...riff.guitar2, ...retuneStrums(given, tuning, guitar2)]),
    };
  });
  return { ...document, riffs };
}
