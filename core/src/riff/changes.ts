/** What two versions of a song have different, as data: by value, so that it does not matter where they come from. */
import type { MidiNote, Ticks } from '../units';
import type { Riff, SongDocument, Strum } from './document';
import { strumNotes } from './strum';

/** A strum as far as it is heard. */
export interface StrumBrief {
  /** Sounding notes, lowest first; empty for a dead stroke, a rest and a blank place. */
  readonly midi: readonly MidiNote[];
  readonly palmMute: boolean;
  readonly dead: boolean;
}

/** Parts of a song that are not riffs or sections. */
export const SONG_PARTS = ['title', 'artist', 'tuning', 'guitar2', 'pitch', 'key', 'beats', 'loops'] as const;
export type SongPart = (typeof SONG_PARTS)[number];

/** `variation`: what it stands in; '' for the riff itself. Null before or after: it was not there. */
export type SongChange =
  | {
      readonly kind: 'strum';
      readonly riffId: string;
      readonly guitar: 1 | 2;
      readonly variation: string;
      readonly ticks: Ticks;
      readonly before: StrumBrief | null;
      readonly after: StrumBrief | null;
    }
  /** How a strum is marked, fingered or believed; it sounds as it did. */
  | { readonly kind: 'marks'; readonly riffId: string; readonly ticks: Ticks }
  | { readonly kind: 'riff'; readonly riffId: string; readonly what: 'added' | 'removed' | 'changed' }
  | {
      readonly kind: 'section';
      readonly name: string;
      readonly what: 'added' | 'removed' | 'changed' | 'settled';
    }
  | { readonly kind: 'part'; readonly part: SongPart };

const isSame = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

function briefOf(strum: Strum | undefined, tuning: SongDocument['tuning']): StrumBrief | null {
  if (!strum || strum.rest) return null;
  return { midi: strumNotes(strum, tuning), palmMute: strum.palmMute && !strum.dead, dead: strum.dead };
}

interface Lists {
  readonly riffId: string;
  readonly guitar: 1 | 2;
  readonly variation: string;
  readonly tuningBefore: SongDocument['tuning'];
  readonly tuningAfter: SongDocument['tuning'];
}

/** By place: an id may change when a strum is written anew. */
function strumChanges(
  before: readonly Strum[],
  after: readonly Strum[],
  { riffId, guitar, variation, tuningBefore, tuningAfter }: Lists,
): SongChange[] {
  const [was, is] = [before, after].map((list) => new Map(list.map((s) => [s.startTicks, s])));
  const places = [...new Set([...was.keys(), ...is.keys()])].sort((a, b) => a - b);
  return places.flatMap((ticks): SongChange[] => {
    const [old, now] = [was.get(ticks), is.get(ticks)];
    const [briefOld, briefNow] = [briefOf(old, tuningBefore), briefOf(now, tuningAfter)];
    if (!isSame(briefOld, briefNow)) {
      return [{ kind: 'strum', riffId, guitar, variation, ticks, before: briefOld, after: briefNow }];
    }
    return isSame({ ...old, id: '' }, { ...now, id: '' }) ? [] : [{ kind: 'marks', riffId, ticks }];
  });
}

function riffChanges(before: SongDocument, after: SongDocument, was: Riff, is: Riff): SongChange[] {
  if (isSame(was, is)) return [];
  const common = { riffId: is.id, variation: '' };
  const first = { ...common, guitar: 1 as const, tuningBefore: before.tuning, tuningAfter: after.tuning };
  const second = {
    ...common,
    guitar: 2 as const,
    tuningBefore: before.guitar2 ?? before.tuning,
    tuningAfter: after.guitar2 ?? after.tuning,
  };
  const variations = is.variations.flatMap((variation) => {
    const old = was.variations.find((v) => v.id === variation.id);
    return strumChanges(old?.strums ?? [], variation.strums, { ...first, variation: variation.name });
  });
  const found = [
    ...strumChanges(was.strums, is.strums, first),
    ...strumChanges(was.guitar2, is.guitar2, second),
    ...variations,
  ];
  return found.length > 0 ? found : [{ kind: 'riff', riffId: is.id, what: 'changed' }];
}

function sectionChanges(before: SongDocument, after: SongDocument): SongChange[] {
  const old = new Map(before.sections.map((s) => [s.id, s]));
  const now = new Set(after.sections.map((s) => s.id));
  return [
    ...after.sections.flatMap((section): SongChange[] => {
      const was = old.get(section.id);
      const { name } = section;
      if (!was) return [{ kind: 'section', name, what: 'added' }];
      if (isSame(was, section)) return [];
      const isOnlySettled = isSame({ ...was, settled: [] }, { ...section, settled: [] });
      return [{ kind: 'section', name, what: isOnlySettled ? 'settled' : 'changed' }];
    }),
    ...before.sections.flatMap(({ id, name }): SongChange[] =>
      now.has(id) ? [] : [{ kind: 'section', name, what: 'removed' }],
    ),
  ];
}

const PARTS: Readonly<Record<SongPart, (document: SongDocument) => unknown>> = {
  title: (d) => d.title,
  artist: (d) => d.artist,
  tuning: (d) => d.tuning,
  guitar2: (d) => d.guitar2,
  pitch: (d) => [d.tuneTo, d.referenceOffsetCents],
  key: (d) => d.key,
  beats: (d) => d.grid,
  loops: (d) => d.loops,
};

/** From the one to the other: what is written first, in order of riffs and places. */
export function changesBetween(before: SongDocument, after: SongDocument): SongChange[] {
  const was = new Map(before.riffs.map((r) => [r.id, r]));
  const is = new Set(after.riffs.map((r) => r.id));
  return [
    ...after.riffs.flatMap((riff): SongChange[] => {
      const old = was.get(riff.id);
      return old ? riffChanges(before, after, old, riff) : [{ kind: 'riff', riffId: riff.id, what: 'added' }];
    }),
    ...before.riffs.flatMap((riff): SongChange[] =>
      is.has(riff.id) ? [] : [{ kind: 'riff', riffId: riff.id, what: 'removed' }],
    ),
    ...sectionChanges(before, after),
    ...SONG_PARTS.flatMap((part): SongChange[] =>
      isSame(PARTS[part](before), PARTS[part](after)) ? [] : [{ kind: 'part', part }],
    ),
  ];
}

/** One riff as it was in another version; where it is not there any more it comes back, played by nobody. */
export function bringRiffBack(document: SongDocument, from: SongDocument, riffId: string): SongDocument {
  const riff = from.riffs.find((r) => r.id === riffId);
  if (!riff || document.riffs.some((r) => r.id === riffId && isSame(r, riff))) return document;
  const isThere = document.riffs.some((r) => r.id === riffId);
  return {
    ...document,
    riffs: isThere ? document.riffs.map((r) => (r.id === riffId ? riff : r)) : [...document.riffs, riff],
  };
}
