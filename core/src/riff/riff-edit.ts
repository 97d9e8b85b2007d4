/** Riffs as a whole: new ones, longer and shorter ones, several made one, notes and groups of their bars. */
import { PLAIN_RIFF, type Riff, type SettledStrum, type SongDocument, type Strum } from './document';
import { changeRiff } from './edit';
import { barStartsTicks, riffTicks, ticksPerBeat } from './grid';
import { COUNT_LIMITS, fitText, TEXT_LIMITS } from './limits';
import type { Refusal } from './refusal';
import { spanSame } from './section-span';

/** A, B … Z, AA, AB …: the first letter that no riff has. */
export function nextLetter(riffs: readonly Riff[]): string {
  const taken = new Set(riffs.map((r) => r.letter));
  for (let n = 0; ; n++) {
    const letter =
      (n >= 26 ? String.fromCharCode(64 + Math.floor(n / 26)) : '') + String.fromCharCode(65 + (n % 26));
    if (!taken.has(letter)) return letter;
  }
}

/** An empty riff of so many bars in the meter of the song. */
export function addRiff(document: SongDocument, id: string, bars: number): SongDocument {
  if (!hasRoomForRiff(document) || bars < 1 || bars > COUNT_LIMITS.barsOfRiff) return document;
  const letter = nextLetter(document.riffs);
  const { beats, unit } = document.grid.bars[0] ?? { beats: 4, unit: 4 };
  const riff: Riff = {
    ...PLAIN_RIFF,
    id,
    letter,
    name: `Riff ${letter}`,
    bars: Array.from({ length: bars }, () => ({ beats, unit })),
    strums: [],
  };
  return { ...document, riffs: [...document.riffs, riff] };
}

function hasRoomForRiff({ riffs }: SongDocument): boolean {
  return riffs.length < COUNT_LIMITS.riffs;
}

export function renameRiff(document: SongDocument, riffId: string, name: string): SongDocument {
  const fitting = fitText(name, TEXT_LIMITS.name);
  return changeRiff(document, riffId, (r) =>
    fitting === '' || r.name === fitting ? r : { ...r, name: fitting },
  );
}

/** Takes a riff away that no section plays. */
export function removeRiff(document: SongDocument, riffId: string): SongDocument {
  if (document.sections.some((s) => s.riffId === riffId)) return document;
  const riffs = document.riffs.filter((r) => r.id !== riffId);
  return riffs.length === document.riffs.length ? document : { ...document, riffs };
}

/** Adds an empty bar to the end, or takes the last one with all that is in it; each section keeps the bars it covers. */
export function addBars(document: SongDocument, riffId: string, by: 1 | -1): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  const length = riff ? riff.bars.length + by : 0;
  if (!riff || length < 1 || length > COUNT_LIMITS.barsOfRiff) return document;
  const bars = by > 0 ? [...riff.bars, riff.bars.at(-1)!] : riff.bars.slice(0, -1);
  const end = riffTicks({ ...riff, bars });
  const inside = (strums: readonly Strum[]): Strum[] => strums.filter((s) => s.startTicks < end);
  const changed: Riff = {
    ...riff,
    bars,
    strums: inside(riff.strums),
    guitar2: inside(riff.guitar2),
    variations: riff.variations
      .filter((v) => v.fromTicks < end)
      .map((v) => ({
        ...v,
        toTicks: Math.min(v.toTicks, end),
        strums: inside(v.strums),
        guitar2: inside(v.guitar2),
      })),
    barNotes: riff.barNotes.filter((n) => n.bar < bars.length),
    groups: riff.groups.filter((g) => g.startBar + g.bars <= bars.length),
  };
  return withLength(document, changed, riff.bars.length);
}

/** The riff in its new length; sections play it over the same bars as before. */
function withLength(document: SongDocument, riff: Riff, before: number): SongDocument {
  return {
    ...document,
    riffs: document.riffs.map((r) => (r.id === riff.id ? riff : r)),
    sections: document.sections.map((s) => {
      return s.riffId === riff.id ? spanSame(s, before, riff.bars.length) : s;
    }),
  };
}

/** Why two passes can't be written as one; null when they can. */
export function whyNotDouble(document: SongDocument, riffId: string): Refusal | null {
  const riff = document.riffs.find((r) => r.id === riffId);
  const { barsOfRiff, strums, barNotes, groups } = COUNT_LIMITS;
  const isTooLong =
    riff &&
    (2 * riff.bars.length > barsOfRiff ||
      2 * Math.max(riff.strums.length, riff.guitar2.length) > strums ||
      2 * riff.barNotes.length > barNotes ||
      2 * riff.groups.length > groups);
  if (isTooLong) return { kind: 'too-long-to-double', letter: riff.letter };
  const odd = document.sections.find(
    (s) => s.riffId === riffId && (s.passes % 2 === 1 || s.skipBars + s.cutBars > 0),
  );
  return odd ? { kind: 'odd-passes', section: odd.name, passes: odd.passes } : null;
}

/** Two passes written as one riff of twice the length, so that the second may differ. */
export function doubleRiff(document: SongDocument, riffId: string, newId: () => string): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff || whyNotDouble(document, riffId) !== null) return document;
  const length = riffTicks(riff);
  const twice = (strums: readonly Strum[]): Strum[] => [
    ...strums,
    ...strums.map((s) => ({ ...s, id: newId(), startTicks: s.startTicks + length })),
  ];
  const bars = riff.bars.length;
  const inTwice = (s: SettledStrum): SettledStrum => ({
    ...s,
    pass: Math.floor(s.pass / 2),
    ticks: s.ticks + (s.pass % 2) * length,
  });
  const longer: Riff = {
    ...riff,
    bars: [...riff.bars, ...riff.bars],
    strums: twice(riff.strums),
    guitar2: twice(riff.guitar2),
    barNotes: [...riff.barNotes, ...riff.barNotes.map((n) => ({ ...n, bar: n.bar + bars }))],
    groups: [...riff.groups, ...riff.groups.map((g) => ({ ...g, startBar: g.startBar + bars }))],
  };
  const sections = document.sections.map((s) =>
    s.riffId === riffId ? { ...s, passes: s.passes / 2, answers: [], settled: s.settled.map(inTwice) } : s,
  );
  return { ...document, riffs: document.riffs.map((r) => (r === riff ? longer : r)), sections };
}

/** A riff of its own for one section, with all that is written in the one it has played. */
export function splitRiff(document: SongDocument, sectionId: string, newId: () => string): SongDocument {
  const section = document.sections.find((s) => s.id === sectionId);
  const riff = document.riffs.find((r) => r.id === section?.riffId);
  const isShared = document.sections.filter((s) => s.riffId === riff?.id).length > 1;
  if (!section || !riff || !isShared || !hasRoomForRiff(document)) return document;
  const letter = nextLetter(document.riffs);
  const copied = (strums: readonly Strum[]): Strum[] => strums.map((s) => ({ ...s, id: newId() }));
  const variationIds = new Map(riff.variations.map((v) => [v.id, newId()]));
  const copy: Riff = {
    ...riff,
    id: newId(),
    letter,
    name: `Riff ${letter}`,
    strums: copied(riff.strums),
    guitar2: copied(riff.guitar2),
    variations: riff.variations.map((v) => ({
      ...v,
      id: variationIds.get(v.id)!,
      strums: copied(v.strums),
      guitar2: copied(v.guitar2),
    })),
  };
  const moved = {
    ...section,
    riffId: copy.id,
    answers: section.answers.map((a) => ({
      ...a,
      variationId: a.variationId === null ? null : (variationIds.get(a.variationId) ?? null),
    })),
  };
  return {
    ...document,
    riffs: [...document.riffs, copy],
    sections: document.sections.map((s) => (s === section ? moved : s)),
  };
}

/** Why two riffs can't become one; null when they can. */
export function whyNotMerge(document: SongDocument, riffId: string, intoId: string): Refusal | null {
  const [riff, into] = [riffId, intoId].map((id) => document.riffs.find((r) => r.id === id));
  if (!riff || !into || riff === into) return { kind: 'not-two-riffs' };
  return riffTicks(riff) === riffTicks(into)
    ? null
    : { kind: 'unequal-riffs', letters: [riff.letter, into.letter] };
}

/** Sections that play one riff play the other from now on; the first one is given up. */
export function mergeRiffs(document: SongDocument, riffId: string, intoId: string): SongDocument {
  if (whyNotMerge(document, riffId, intoId) !== null) return document;
  const [before, perPass] = [riffId, intoId].map(
    (id) => document.riffs.find((r) => r.id === id)?.bars.length ?? 1,
  );
  return {
    ...document,
    riffs: document.riffs.filter((r) => r.id !== riffId),
    sections: document.sections.map((s) =>
      s.riffId === riffId ? { ...spanSame(s, before, perPass), answers: [], settled: [], riffId: intoId } : s,
    ),
  };
}

/** Writes a remark or something to do on a bar; an empty text takes it away. */
export function setBarNote(
  document: SongDocument,
  riffId: string,
  bar: number,
  text: string,
  todo: boolean,
): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    if (bar < 0 || bar >= riff.bars.length) return riff;
    const others = riff.barNotes.filter((n) => n.bar !== bar);
    const fitting = fitText(text, TEXT_LIMITS.note);
    const noted = fitting === '' ? [] : [{ bar, text: fitting, todo }];
    if (others.length + noted.length > COUNT_LIMITS.barNotes) return riff;
    return { ...riff, barNotes: [...others, ...noted].sort((a, b) => a.bar - b.bar) };
  });
}

/** Names bars of a riff as a group; groups that it touches give way. An empty name takes it away. */
export function setGroup(
  document: SongDocument,
  riffId: string,
  startBar: number,
  bars: number,
  name: string,
): SongDocument {
  return changeRiff(document, riffId, (riff) => {
    if (startBar < 0 || bars < 1 || startBar + bars > riff.bars.length) return riff;
    const others = riff.groups.filter(
      (g) => g.startBar + g.bars <= startBar || g.startBar >= startBar + bars,
    );
    const fitting = fitText(name, TEXT_LIMITS.name);
    const named = fitting === '' ? [] : [{ name: fitting, startBar, bars }];
    return { ...riff, groups: [...others, ...named].sort((a, b) => a.startBar - b.startBar) };
  });
}

/** The bar of a riff that a tick lies in, 0 for the first. */
export function barOf(riff: Riff, ticks: number): number {
  return Math.max(
    0,
    barStartsTicks(riff).findLastIndex((start) => start <= ticks),
  );
}

/** A place in a bar as beats from its start. */
export function beatInBar(riff: Riff, ticks: number): number {
  const bar = barOf(riff, ticks);
  return (ticks - barStartsTicks(riff)[bar]) / ticksPerBeat(riff.bars[bar]?.unit ?? 4);
}
