/** What was brought in, put to a song: beside what is written, or in its place where both have a riff of the same letter. */
import type { Tuning } from '../guitar';
import {
  COUNT_LIMITS,
  nextLetter,
  retune,
  retuneStrums,
  spanSame,
  type Riff,
  type Section,
  type SongDocument,
  type Strum,
} from '../riff';

/** Riffs in the tunings of the song that they come to; the same notes on other strings. */
function inTuningOf(song: SongDocument, brought: SongDocument): Riff[] {
  const isSame = (a: Tuning, b: Tuning): boolean =>
    a.capo === b.capo && a.stringsMidi.join() === b.stringsMidi.join();
  const first = isSame(song.tuning, brought.tuning) ? brought : retune(brought, song.tuning);
  const [from, to] = [brought.guitar2 ?? brought.tuning, song.guitar2];
  const second = (strums: readonly Strum[]): readonly Strum[] =>
    to === null ? [] : isSame(from, to) ? strums : retuneStrums(strums, from, to);
  return first.riffs.map((riff) => ({
    ...riff,
    guitar2: second(riff.guitar2),
    variations: riff.variations.map((v) => ({ ...v, guitar2: second(v.guitar2) })),
  }));
}

/** With ids that the song does not have yet. `newId` makes one that is used nowhere. */
function withNewIds(riff: Riff, newId: () => string): Riff {
  const anew = (strums: readonly Strum[]): Strum[] => strums.map((s) => ({ ...s, id: newId() }));
  return {
    ...riff,
    id: newId(),
    strums: anew(riff.strums),
    guitar2: anew(riff.guitar2),
    variations: riff.variations.map((v) => ({
      ...v,
      id: newId(),
      strums: anew(v.strums),
      guitar2: anew(v.guitar2),
    })),
  };
}

/** A second guitar that only the file has is taken over with its part, where the song has none. */
function withSecond(song: SongDocument, brought: SongDocument): SongDocument {
  const isNew = song.guitar2 === null && brought.guitar2 !== null && song.riffs.length === 0;
  return isNew ? { ...song, guitar2: brought.guitar2 } : song;
}

/** Riffs of the file behind those of the song, each under the next free letter. Throws a RangeError where they are too many. */
export function putBeside(document: SongDocument, brought: SongDocument, newId: () => string): SongDocument {
  const song = withSecond(document, brought);
  const riffs = [...song.riffs];
  for (const riff of inTuningOf(song, brought)) {
    const letter = riffs.some((r) => r.letter === riff.letter) ? nextLetter(riffs) : riff.letter;
    const name = riff.name === `Riff ${riff.letter}` ? `Riff ${letter}` : riff.name;
    riffs.push({ ...withNewIds(riff, newId), letter, name });
  }
  if (riffs.length > COUNT_LIMITS.riffs) {
    throw new RangeError(
      `with them the song would have ${riffs.length} riffs, and it holds ${COUNT_LIMITS.riffs}`,
    );
  }
  return { ...song, riffs };
}

/** A section of a riff that has become longer or shorter: it covers the bars that it did, as it is written now. */
function covering(section: Section, before: Riff, now: Riff): Section {
  const plain = { ...section, answers: [], settled: [] };
  return before.bars.length === now.bars.length
    ? plain
    : spanSame(plain, before.bars.length, now.bars.length);
}

/**
 * Riffs of the file in the place of those with their letters; others beside. The road map stays, and where the song has none that of the
 * file is taken, on the bars of the recording as far as they go.
 */
export function putInPlace(document: SongDocument, brought: SongDocument, newId: () => string): SongDocument {
  const song = withSecond(document, brought);
  const theirs = inTuningOf(song, brought);
  const replaced = new Map(theirs.map((riff) => [riff.letter, riff]));
  const riffs = song.riffs.map((riff): Riff => {
    const their = replaced.get(riff.letter);
    return their ? { ...withNewIds(their, newId), id: riff.id, name: riff.name } : riff;
  });
  const isNew = ({ letter }: Riff): boolean => !song.riffs.some((r) => r.letter === letter);
  const added = theirs.filter(isNew);
  const sections = song.sections.map((section) => {
    const [before, now] = [song.riffs, riffs].map((all) => all.find((r) => r.id === section.riffId));
    return before && now && before !== now ? covering(section, before, now) : section;
  });
  const all = putBeside(
    { ...song, riffs, sections },
    { ...brought, riffs: brought.riffs.filter((r) => added.some((a) => a.letter === r.letter)) },
    newId,
  );
  return song.sections.length > 0 ? all : withRoadMap(all, brought, newId);
}

function withRoadMap(song: SongDocument, brought: SongDocument, newId: () => string): SongDocument {
  const hasBars = song.grid.bars.length > 0;
  const letterOf = new Map(brought.riffs.map((r) => [r.id, r.letter]));
  const sections = brought.sections
    .map((section): Section => ({
      ...section,
      id: newId(),
      riffId: song.riffs.find((r) => r.letter === letterOf.get(section.riffId ?? ''))?.id ?? null,
      answers: [],
    }))
    .filter((s) => !hasBars || s.startBar < song.grid.bars.length);
  return { ...song, sections, grid: hasBars ? song.grid : brought.grid };
}
