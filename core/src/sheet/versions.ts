/**
 * The tab as another player needs it, worked out from the full one: fewer strings, no mutes, standard tuning, one guitar for two. Each
 * says what changed; the song itself stays as it is.
 */
import { writtenVoicings, STANDARD_TUNING, type StringFret, type Tuning } from '../guitar';
import { allLostNotes, retune, strumNotes, type Riff, type SongDocument, type Strum } from '../riff';
import { identifyChord, pitchClassOf } from '../theory';
import type { MidiNote } from '../units';

export const SHEET_VERSIONS = [
  'as-written',
  'two-strings',
  'one-string',
  'no-mutes',
  'standard-tuning',
  'with-capo',
  'one-guitar',
] as const;
export type SheetVersion = (typeof SHEET_VERSIONS)[number];

export interface VersionedSong {
  readonly document: SongDocument;
  /** Strums that are played otherwise than they are written. */
  readonly changed: number;
  /** Strums that are left out. */
  readonly gone: number;
  /** Notes that this version can't play: how many, and each pitch once, lowest first. */
  readonly lost: number;
  readonly lostNotes: readonly MidiNote[];
  /** Strums that sound notes of the other guitar too. */
  readonly taken: number;
}

type ChangeStrums = (strums: readonly Strum[], tuning: Tuning) => readonly Strum[];

function everywhere(document: SongDocument, change: ChangeStrums): SongDocument {
  const { tuning } = document;
  const second = document.guitar2 ?? tuning;
  return {
    ...document,
    riffs: document.riffs.map((riff) => ({
      ...riff,
      strums: change(riff.strums, tuning),
      guitar2: change(riff.guitar2, second),
      variations: riff.variations.map((v) => ({
        ...v,
        strums: change(v.strums, tuning),
        guitar2: change(v.guitar2, second),
      })),
    })),
  };
}

function strumsOf(document: SongDocument): Strum[] {
  return document.riffs.flatMap((riff) => [
    ...riff.strums,
    ...riff.guitar2,
    ...riff.variations.flatMap((v) => [...v.strums, ...v.guitar2]),
  ]);
}

/** What became of each strum, found by its id. */
function counted(before: SongDocument, document: SongDocument): VersionedSong {
  const now = new Map(strumsOf(document).map((s) => [s.id, s]));
  const was = strumsOf(before);
  const played = ({ frets, palmMute, dead }: Strum): string => JSON.stringify([frets, palmMute, dead]);
  return {
    document,
    changed: was.filter((s) => now.has(s.id) && played(now.get(s.id)!) !== played(s)).length,
    gone: was.filter((s) => !now.has(s.id)).length,
    lost: allLostNotes(document).reduce((sum, l) => sum + l.notes.length, 0),
    lostNotes: [...new Set(allLostNotes(document).flatMap((l) => l.notes))].sort((a, b) => a - b),
    taken: 0,
  };
}

/** Lowest string first. */
function inOrder(frets: readonly StringFret[]): StringFret[] {
  return [...frets].sort((a, b) => b.string - a.string);
}

/** The two thickest strings that are played: root and fifth, in whatever order the shape has them. */
function twoStrings(strum: Strum): Strum {
  return strum.frets.length <= 2 ? strum : { ...strum, frets: inOrder(strum.frets).slice(0, 2) };
}

/** The lowest string that sounds the root. */
function oneString(strum: Strum, tuning: Tuning): Strum {
  if (strum.frets.length <= 1 || strum.dead) return strum;
  const root = identifyChord(strumNotes(strum, tuning))?.rootPc;
  const frets = inOrder(strum.frets);
  const onRoot = frets.find((f) => pitchClassOf(strumNotes({ ...strum, frets: [f] }, tuning)[0]) === root);
  return { ...strum, frets: [onRoot ?? frets[0]] };
}

function withoutMutes(strums: readonly Strum[]): Strum[] {
  return strums.filter((s) => !s.dead).map((s) => (s.palmMute ? { ...s, palmMute: false } : s));
}

/** Standard tuning for as many strings as the guitar has; those with more or fewer than six keep their distances to the highest. */
export function standardFor({ stringsMidi }: Tuning): Tuning {
  const { stringsMidi: six } = STANDARD_TUNING;
  if (stringsMidi.length === six.length) return STANDARD_TUNING;
  const fourths = Array.from(
    { length: Math.max(0, stringsMidi.length - six.length) },
    (_, i) => six[0] - 5 * (i + 1),
  );
  const strings = [...fourths.reverse(), ...six].slice(-stringsMidi.length);
  return { name: 'custom', stringsMidi: strings, capo: 0 };
}

/**
 * Both parts on the first guitar where one hand reaches them: notes of both at the same place are struck together; where no hand
 * does, the first guitar has the say. What the second plays alone is taken over.
 */
function mergeGuitars(
  { strums, guitar2 }: Pick<Riff, 'strums' | 'guitar2'>,
  tuning: Tuning,
  tuning2: Tuning,
): Strum[] {
  const own = new Map(strums.map((s) => [s.startTicks, s]));
  const notesOf = (s: Strum, of: Tuning): MidiNote[] => (s.dead ? [] : strumNotes(s, of));
  const voiced = (strum: Strum, midi: readonly MidiNote[]): Strum | null => {
    const frets = writtenVoicings(midi, tuning)[0]?.frets;
    return frets ? { ...strum, frets, writtenAs: null } : null;
  };
  const both = strums.map((strum) => {
    const other = guitar2.find((s) => s.startTicks === strum.startTicks);
    if (!other || strum.dead || strum.rest || other.dead || other.rest) return strum;
    const midi = [...new Set([...notesOf(strum, tuning), ...notesOf(other, tuning2)])].sort((a, b) => a - b);
    return midi.length === notesOf(strum, tuning).length ? strum : (voiced(strum, midi) ?? strum);
  });
  const alone = guitar2
    .filter((s) => !own.has(s.startTicks) && !s.rest)
    .flatMap((s) => (s.dead ? [{ ...s, frets: [] }] : (voiced(s, notesOf(s, tuning2)) ?? [])));
  return [...both, ...alone].sort((a, b) => a.startTicks - b.startTicks);
}

function oneGuitar(document: SongDocument): SongDocument {
  const { guitar2, tuning } = document;
  if (!guitar2) return document;
  return {
    ...document,
    guitar2: null,
    riffs: document.riffs.map((riff) => ({
      ...riff,
      strums: mergeGuitars(riff, tuning, guitar2),
      guitar2: [],
      variations: riff.variations.map((v) => ({
        ...v,
        strums: mergeGuitars(v, tuning, guitar2),
        guitar2: [],
      })),
    })),
  };
}

/** What became of the second guitar: strums that the first one strikes with it, and those that are left out in part or whole. */
function countedAsOne(before: SongDocument, document: SongDocument): VersionedSong {
  const { guitar2 } = before;
  if (!guitar2) return counted(before, document);
  let [taken, gone] = [0, 0];
  before.riffs.forEach((riff, r) => {
    const parts = [riff, ...riff.variations].map((part, i) => ({
      second: part.guitar2,
      merged: (i === 0 ? document.riffs[r] : document.riffs[r].variations[i - 1]).strums,
    }));
    for (const { second, merged } of parts) {
      for (const strum of second.filter((s) => !s.rest)) {
        const now = merged.find((s) => s.startTicks === strum.startTicks);
        const sounds = now ? strumNotes(now, document.tuning) : [];
        const isWhole = now !== undefined && strumNotes(strum, guitar2).every((n) => sounds.includes(n));
        if (isWhole) taken++;
        else gone++;
      }
    }
  });
  return { ...counted(before, document), changed: 0, gone, taken };
}

/** Capos are rarely set higher (common practice). */
const HIGHEST_CAPO = 7;

/** Strums that have an open string, which is what a capo is set for, and notes that it costs. */
function ease(document: SongDocument): { readonly open: number; readonly lost: number } {
  const strums = strumsOf(document).filter((s) => s.frets.length > 0);
  return {
    open: strums.filter((s) => s.frets.some((f) => f.fret === 0)).length,
    lost: allLostNotes(document).reduce((sum, l) => sum + l.notes.length, 0),
  };
}

const openIn = (frets: readonly StringFret[]): number => frets.filter((f) => f.fret === 0).length;

/** Of the ways to play each strum the first with the most open strings. */
function onOpenStrings(strums: readonly Strum[], tuning: Tuning): Strum[] {
  return strums.map((strum) => {
    if (strum.dead || strum.rest || strum.frets.length === 0 || strum.marks.join !== null) return strum;
    const most = writtenVoicings(strumNotes(strum, tuning), tuning).reduce<readonly StringFret[]>(
      (best, { frets }) => (openIn(frets) > openIn(best) ? frets : best),
      strum.frets,
    );
    return { ...strum, frets: most };
  });
}

/** The same sound with a capo: at the fret that loses no note, or the fewest, and lets the most strums have an open string. */
function withCapo(document: SongDocument): SongDocument {
  const first = document.tuning.capo + 1;
  const [best] = Array.from({ length: HIGHEST_CAPO }, (_, i) => {
    const capo = Math.min(12, first + i);
    const moved = everywhere(retune(document, { ...document.tuning, capo }), onOpenStrings);
    return { moved, ...ease(moved) };
  }).sort((a, b) => a.lost - b.lost || b.open - a.open || a.moved.tuning.capo - b.moved.tuning.capo);
  return best.moved;
}

/** The song as this version plays it, with what that changed. */
export function makeVersion(document: SongDocument, version: SheetVersion): VersionedSong {
  switch (version) {
    case 'as-written':
      return counted(document, document);
    case 'two-strings':
      return counted(
        document,
        everywhere(document, (strums) => strums.map(twoStrings)),
      );
    case 'one-string':
      return counted(
        document,
        everywhere(document, (strums, tuning) => strums.map((s) => oneString(s, tuning))),
      );
    case 'no-mutes':
      return counted(document, everywhere(document, withoutMutes));
    case 'standard-tuning':
      return counted(document, retune(document, standardFor(document.tuning)));
    case 'with-capo':
      return counted(document, withCapo(document));
    case 'one-guitar':
      return countedAsOne(document, oneGuitar(document));
  }
}
