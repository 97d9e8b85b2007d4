/** Changes to what belongs to the song as a whole: its name, its loops, its pitch. What can't be done returns the same document. */
import type { NamedLoop, SongDocument } from './document';
import { COUNT_LIMITS, fitText, isWithin, RANGES, TEXT_LIMITS } from './limits';

/** Keeps a loop under its name; one of the same name is moved. One without a name or a length is refused. */
export function keepLoop(document: SongDocument, loop: NamedLoop): SongDocument {
  const named = { ...loop, name: fitText(loop.name, TEXT_LIMITS.loopName) };
  const others = document.loops.filter((l) => l.name !== named.name && l.id !== named.id);
  const isLoop = named.name !== '' && named.startS >= 0 && named.endS > named.startS;
  if (!isLoop || others.length >= COUNT_LIMITS.loops) return document;
  return { ...document, loops: [...others, named].sort((a, b) => a.startS - b.startS) };
}

export function removeLoop(document: SongDocument, id: string): SongDocument {
  const loops = document.loops.filter((l) => l.id !== id);
  return loops.length === document.loops.length ? document : { ...document, loops };
}

export function setTuneTo(document: SongDocument, tuneTo: SongDocument['tuneTo']): SongDocument {
  return document.tuneTo === tuneTo ? document : { ...document, tuneTo };
}

/** How far the recording is off, as the user says; farther than a semitone is another note. */
export function setReferenceCents(document: SongDocument, referenceOffsetCents: number): SongDocument {
  if (!isWithin(referenceOffsetCents, RANGES.referenceOffsetCents)) return document;
  return { ...document, referenceOffsetCents };
}

/** A song keeps its title where the new one is empty; it may be by nobody. */
export function setTitle(document: SongDocument, title: string, artist: string): SongDocument {
  const [fittingTitle, fittingArtist] = [
    fitText(title, TEXT_LIMITS.title),
    fitText(artist, TEXT_LIMITS.artist),
  ];
  return { ...document, title: fittingTitle || document.title, artist: fittingArtist };
}
