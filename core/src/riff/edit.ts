/**
 * Changes to a document's strums. Each takes a document and returns a new one that shares what did not change; what
 * can't be done returns the same document. No change reads a clock or makes ids: the caller brings them. A strum is found by
 * its id, in the riff or in one of its variations.
 */
import { MAX_FRET, type StringFret } from '../guitar';
import type { StringNumber, Ticks } from '../units';
import type { Riff, SongDocument, Strum } from './document';
import type { Trust } from './enums';
import { barStartsTicks, riffTicks } from './grid';
import { COUNT_LIMITS, fitText, TEXT_LIMITS } from './limits';
import { applyMark, markState, type MarkCommand } from './marks/marks';
import { isBlank } from './strum';

export function changeRiff(
  document: SongDocument,
  riffId: string,
  change: (riff: Riff) => Riff,
): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff) return document;
  const changed = change(riff);
  if (changed === riff) return document;
  return { ...document, riffs: document.riffs.map((r) => (r === riff ? changed : r)) };
}

interface Span {
  readonly fromTicks: Ticks;
  readonly toTicks: Ticks;
}

type StrumList = readonly Strum[];

/** Changes the strums of the riff and of each variation; lists that stay the same keep the riff the same. */
function changeLists(riff: Riff, change: (strums: StrumList, span: Span) => StrumList): Riff {
  const strums = change(riff.strums, { fromTicks: 0, toTicks: riffTicks(riff) });
  const variations = riff.variations.map((v) => {
    const changed = change(v.strums, v);
    return changed === v.strums ? v : { ...v, strums: changed };
  });
  const isSame = strums === riff.strums && variations.every((v, i) => v === riff.variations[i]);
  return isSame ? riff : { ...riff, strums, variations };
}

/** Frets written by hand are what is written from now on, whatever tuning the strum came from. */
function writtenOn(before: Strum, after: Strum): Strum {
  return after.frets === before.frets || after.writtenAs === null ? after : { ...after, writtenAs: null };
}

function changeStrums(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  change: (strum: Strum) => Strum,
): SongDocument {
  return changeRiff(document, riffId, (riff) =>
    changeLists(riff, (strums) => {
      const changed = strums.map((s) => (ids.has(s.id) ? writtenOn(s, change(s)) : s));
      return changed.every((s, i) => s === strums[i]) ? strums : changed;
    }),
  );
}

/** A strum of the riff or of its variations. */
export function findStrum(riff: Riff, strumId: string): Strum | null {
  const lists = [riff.strums, ...riff.variations.map((v) => v.strums)];
  return lists.flat().find((s) => s.id === strumId) ?? null;
}

function sortFrets(frets: readonly StringFret[]): StringFret[] {
  return [...frets].sort((a, b) => b.string - a.string);
}

/** Writes a fret on one string of a strum. A dead stroke and a rest become a played one. */
export function setFret(
  document: SongDocument,
  riffId: string,
  strumId: string,
  { string, fret }: StringFret,
): SongDocument {
  if (fret < 0 || fret > MAX_FRET || string < 1 || string > document.tuning.stringsMidi.length)
    return document;
  return changeStrums(document, riffId, new Set([strumId]), (strum) =>
    !strum.dead && !strum.rest && strum.frets.some((f) => f.string === string && f.fret === fret)
      ? strum
      : {
          ...strum,
          frets: sortFrets([...strum.frets.filter((f) => f.string !== string), { string, fret }]),
          dead: false,
          rest: false,
          trust: 'checked',
        },
  );
}

/** Takes a string out of a strum; the last one takes the strum with it. */
export function clearFret(
  document: SongDocument,
  riffId: string,
  strumId: string,
  string: StringNumber,
): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  const strum = riff && findStrum(riff, strumId);
  if (!strum?.frets.some((f) => f.string === string)) return document;
  if (strum.frets.length === 1) return removeStrums(document, riffId, new Set([strumId]));
  return changeStrums(document, riffId, new Set([strumId]), (s) => ({
    ...s,
    frets: s.frets.filter((f) => f.string !== string),
    trust: 'checked',
  }));
}

/** Replaces all strings of strums, as when another way to play them is chosen. */
export function setFrets(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  frets: readonly StringFret[],
): SongDocument {
  const strings = document.tuning.stringsMidi.length;
  if (frets.some((f) => f.fret < 0 || f.fret > MAX_FRET || f.string < 1 || f.string > strings))
    return document;
  return changeStrums(document, riffId, ids, (strum) => ({
    ...strum,
    frets: sortFrets(frets),
    dead: false,
    rest: false,
    trust: 'checked',
  }));
}

/**
 * Moves the fretting hand along the neck and across the strings; nothing moves when one note would leave the neck. Across the strings
 * the lowest one keeps its fret and the others keep their distance in pitch from it: the chord stays of its kind, whatever the tuning.
 */
export function shiftFrets(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  by: { readonly frets: number; readonly strings: number },
): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff) return document;
  const strings = document.tuning.stringsMidi.length;
  const openOf = (string: number): number => document.tuning.stringsMidi[strings - string] ?? 0;
  /** How far the string that a note goes to lies over its own. */
  const risesBy = (string: number): number => openOf(string + by.strings) - openOf(string);
  const moved = (frets: readonly StringFret[]): StringFret[] => {
    const lowest = Math.max(...frets.map((f) => f.string));
    return frets.map(({ string, fret }) => ({
      string: string + by.strings,
      fret: fret + by.frets + (by.strings === 0 ? 0 : risesBy(lowest) - risesBy(string)),
    }));
  };
  const stays = [...ids]
    .flatMap((id) => moved(findStrum(riff, id)?.frets ?? []))
    .every((f) => f.fret >= 0 && f.fret <= MAX_FRET && f.string >= 1 && f.string <= strings);
  if (!stays) return document;
  return changeStrums(document, riffId, ids, (strum) =>
    strum.frets.length === 0 ? strum : { ...strum, frets: moved(strum.frets), trust: 'checked' },
  );
}

/** Changes one mark of strums. Where they differ, all get what the first of them gets. */
export function setMark(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  command: MarkCommand,
): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  const first = riff && [...ids].map((id) => findStrum(riff, id)).find((s) => s !== null);
  if (!first) return document;
  const wanted = markState(applyMark(first, command), command);
  return changeStrums(document, riffId, ids, (strum) => {
    let changed = strum;
    // As many presses as bring this one to where the first is.
    for (let press = 0; press < MOST_PRESSES && markState(changed, command) !== wanted; press++) {
      changed = applyMark(changed, command);
    }
    return changed;
  });
}

/** Longest round of a mark: bends and the ends of slides have five states. */
const MOST_PRESSES = 5;

/** How far strums are to be believed. */
export function setTrust(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  trust: Trust,
): SongDocument {
  return changeStrums(document, riffId, ids, (s) => (s.trust === trust ? s : { ...s, trust }));
}

export function markChecked(document: SongDocument, riffId: string, ids: ReadonlySet<string>): SongDocument {
  return changeStrums(document, riffId, ids, (s) =>
    s.trust === 'checked' || isBlank(s) ? s : { ...s, trust: 'checked' },
  );
}

/** Takes that back: strums that were checked count as heard where `isHeard`, else as guessed. */
export function markUnchecked(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  isHeard: (strumId: string) => boolean,
): SongDocument {
  return changeStrums(document, riffId, ids, (s) =>
    s.trust === 'checked' ? { ...s, trust: isHeard(s.id) ? 'heard' : 'guessed' } : s,
  );
}

/** How strums are played, all at once: as it was heard, or as it was before a mark. Their places stay; they count as checked. */
export function rewriteStrums(
  document: SongDocument,
  riffId: string,
  played: ReadonlyMap<string, Partial<Pick<Strum, 'frets' | 'palmMute' | 'dead' | 'rest' | 'marks'>>>,
): SongDocument {
  return changeStrums(document, riffId, new Set(played.keys()), (strum) => {
    const changed = { ...strum, ...played.get(strum.id) };
    const { frets, palmMute, dead, rest, marks } = strum;
    const isSame =
      palmMute === changed.palmMute &&
      dead === changed.dead &&
      rest === changed.rest &&
      isEqual(marks, changed.marks) &&
      isEqual(frets, sortFrets(changed.frets));
    return isSame ? strum : { ...changed, frets: sortFrets(changed.frets), trust: 'checked' };
  });
}

function isEqual(a: unknown, b: unknown): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** What the player wants to remember of a strum. */
export function setStrumNote(
  document: SongDocument,
  riffId: string,
  strumId: string,
  note: string,
): SongDocument {
  const fitting = fitText(note, TEXT_LIMITS.note);
  return changeStrums(document, riffId, new Set([strumId]), (s) =>
    s.note === fitting ? s : { ...s, note: fitting },
  );
}

/** How long strums sound; at least a tick, and not over the end of the riff. */
export function lengthenStrums(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  by: Ticks,
): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff) return document;
  const end = riffTicks(riff);
  return changeStrums(document, riffId, ids, (strum) => {
    const longest = end - strum.startTicks;
    // A strum shorter than the step grows from nothing to one step.
    const durationTicks = Math.min(longest, Math.max(Math.abs(by), strum.durationTicks + by));
    return durationTicks === strum.durationTicks ? strum : { ...strum, durationTicks, trust: 'checked' };
  });
}

export function removeStrums(document: SongDocument, riffId: string, ids: ReadonlySet<string>): SongDocument {
  return changeRiff(document, riffId, (riff) =>
    changeLists(riff, (strums) => {
      const kept = strums.filter((s) => !ids.has(s.id));
      return kept.length === strums.length ? strums : kept;
    }),
  );
}

/**
 * Adds strums, to a variation where they fall into it. One that stands at the same place already keeps its place and the new
 * one is refused, as is one outside of the riff.
 */
export function addStrums(
  document: SongDocument,
  riffId: string,
  strums: StrumList,
  variationId: string | null = null,
): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    const variation = riff.variations.find((v) => v.id === variationId);
    const isVaried = ({ startTicks }: Strum): boolean =>
      variation !== undefined && startTicks >= variation.fromTicks && startTicks < variation.toTicks;
    const put = (present: StrumList, added: StrumList): StrumList => {
      const taken = new Set(present.map((s) => s.startTicks));
      const ids = new Set(present.map((s) => s.id));
      const fitting = added.filter(
        ({ id, startTicks }) =>
          startTicks >= 0 && startTicks < riffTicks(riff) && !taken.has(startTicks) && !ids.has(id),
      );
      if (fitting.length === 0 || present.length + fitting.length > COUNT_LIMITS.strums) return present;
      return [...present, ...fitting].sort((a, b) => a.startTicks - b.startTicks);
    };
    const own = put(
      riff.strums,
      strums.filter((s) => !isVaried(s)),
    );
    const variations = riff.variations.map((v) => {
      const changed = v === variation ? put(v.strums, strums.filter(isVaried)) : v.strums;
      return changed === v.strums ? v : { ...v, strums: changed };
    });
    const isSame = own === riff.strums && variations.every((v, i) => v === riff.variations[i]);
    return isSame ? riff : { ...riff, strums: own, variations };
  });
}

/** Moves strums in time together; they keep out of places where others stand, and inside of the riff or variation. */
export function moveStrums(
  document: SongDocument,
  riffId: string,
  ids: ReadonlySet<string>,
  by: Ticks,
): SongDocument {
  return changeRiff(document, riffId, (riff) =>
    changeLists(riff, (strums, { fromTicks, toTicks }) => {
      const moving = strums.filter((s) => ids.has(s.id));
      if (moving.length === 0 || by === 0) return strums;
      const taken = new Set(strums.filter((s) => !ids.has(s.id)).map((s) => s.startTicks));
      const isFree = moving.every(({ startTicks }) => {
        const at = startTicks + by;
        return at >= fromTicks && at < toTicks && !taken.has(at);
      });
      if (!isFree) return strums;
      const moved = strums.map((s) => (ids.has(s.id) ? { ...s, startTicks: s.startTicks + by } : s));
      return moved.sort((a, b) => a.startTicks - b.startTicks);
    }),
  );
}

/** The strums of one bar struck again in the next, in place of what stands there. Ids are made by the caller. */
export function repeatBar(
  document: SongDocument,
  riffId: string,
  bar: number,
  newId: () => string,
): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    const starts = barStartsTicks(riff);
    const [from, to] = [starts[bar], starts[bar + 1]];
    if (from === undefined || to === undefined) return riff;
    const until = starts[bar + 2] ?? riffTicks(riff);
    const copied = riff.strums
      .filter((s) => s.startTicks >= from && s.startTicks < to && s.startTicks + to - from < until)
      .map((s) => ({ ...s, id: newId(), startTicks: s.startTicks + to - from }));
    const others = riff.strums.filter((s) => s.startTicks < to || s.startTicks >= until);
    if (copied.length === 0 || others.length + copied.length > COUNT_LIMITS.strums) return riff;
    return { ...riff, strums: [...others, ...copied].sort((a, b) => a.startTicks - b.startTicks) };
  });
}

/** The first place behind a tick on a grid of `step` that is not taken, before the next strum; null when there is none. */
export function placeBehind(riff: Riff, behind: Ticks, step: Ticks): Ticks | null {
  const end = riff.strums.find((s) => s.startTicks > behind)?.startTicks ?? riffTicks(riff);
  const place = (Math.floor(behind / step) + 1) * step;
  return place < end ? place : null;
}

/**
 * Where a strum ends on screen, in tab and in sound: its written end, at the latest the next strum. One that rings on ends
 * where one of its strings is struck again, or where a rest stops it; one that is short after half of its length.
 */
export function soundingEndTicks(riff: Riff, index: number): Ticks {
  const strum = riff.strums[index];
  const end = riffTicks(riff);
  if (strum.marks.length === 'ring') {
    const strings = new Set(strum.frets.map((f) => f.string));
    const stops = (s: Strum): boolean => s.rest || s.dead || s.frets.some((f) => strings.has(f.string));
    return riff.strums.slice(index + 1).find(stops)?.startTicks ?? end;
  }
  const next = riff.strums[index + 1]?.startTicks ?? end;
  const written = Math.min(strum.startTicks + strum.durationTicks, next);
  return strum.marks.length === 'short' ? strum.startTicks + (written - strum.startTicks) / 2 : written;
}
