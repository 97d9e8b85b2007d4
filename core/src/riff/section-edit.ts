/**
 * Sections by hand: made, cut, lengthened, joined, taken away, renamed, moved, repeated. They never overlap. What can't be done
 * returns the same document; `whyNot` functions say why.
 */
import type { Key } from '../theory';
import { PLAIN_RIFF, PLAIN_SECTION, type Section, type SongDocument } from './document';
import { COUNT_LIMITS, fitText, isWithin, RANGES, TEXT_LIMITS } from './limits';
import type { Refusal } from './refusal';
import { nextLetter } from './riff-edit';
import { barsPerPass, endBarOf, sectionBars, spanOver, withoutFirstBars } from './section-span';

function changeSection(
  document: SongDocument,
  id: string,
  change: (section: Section, index: number) => Section,
): SongDocument {
  const index = document.sections.findIndex((s) => s.id === id);
  if (index < 0) return document;
  const changed = change(document.sections[index], index);
  if (changed === document.sections[index]) return document;
  return { ...document, sections: document.sections.map((s, i) => (i === index ? changed : s)) };
}

/** Bars that a section may reach from and to without running into its neighbours. */
function roomOf(document: SongDocument, index: number): { first: number; end: number } {
  const before = document.sections[index - 1];
  const after = document.sections[index + 1];
  return {
    first: before ? endBarOf(document, before) : 0,
    end: after ? after.startBar : document.grid.bars.length,
  };
}

export function renameSection(document: SongDocument, id: string, name: string): SongDocument {
  const fitting = fitText(name, TEXT_LIMITS.name);
  return changeSection(document, id, (s) =>
    s.name === fitting || fitting === '' ? s : { ...s, name: fitting },
  );
}

/** Begins a section so many bars later; it does not run into its neighbours. */
export function moveSection(document: SongDocument, id: string, bars: number): SongDocument {
  return changeSection(document, id, (section, index) => {
    const { first, end } = roomOf(document, index);
    const latest = end - sectionBars(document, section);
    const startBar = Math.min(Math.max(first, section.startBar + bars), Math.max(first, latest));
    return startBar === section.startBar ? section : { ...section, startBar };
  });
}

/** Says that a section begins where it is written. */
export function confirmStart(document: SongDocument, id: string): SongDocument {
  return changeSection(document, id, (s) => (s.startIsConfirmed ? s : { ...s, startIsConfirmed: true }));
}

/**
 * Begins a section, and its riff, at a bar; it ends where it did, and the section before gives way. Nothing changes where either
 * would be left without a bar.
 */
export function beginSection(document: SongDocument, id: string, startBar: number): SongDocument {
  const index = document.sections.findIndex((s) => s.id === id);
  const section = document.sections[index];
  if (!section || startBar < 0 || startBar === section.startBar) return document;
  const bars = endBarOf(document, section) - startBar;
  const before = document.sections[index - 1];
  if (bars < 1 || (before && startBar <= before.startBar)) return document;
  const sections = document.sections.map((s, i) => {
    if (i === index) return { ...spanOver(s, barsPerPass(document, s), bars, 0), startBar };
    return i === index - 1 && endBarOf(document, s) > startBar
      ? spanOver(s, barsPerPass(document, s), startBar - s.startBar)
      : s;
  });
  return isFitting(sections) ? { ...document, sections } : document;
}

function isFitting(sections: readonly Section[]): boolean {
  return sections.length <= COUNT_LIMITS.sections && sections.every((s) => s.passes <= COUNT_LIMITS.passes);
}

/** Ends a section so many bars later; at least a bar is left, and it does not run into the next. */
export function lengthenSection(document: SongDocument, id: string, by: number): SongDocument {
  return changeSection(document, id, (section, index) => {
    const bars = sectionBars(document, section);
    const most = Math.max(bars, roomOf(document, index).end - section.startBar);
    const wanted = Math.max(1, Math.min(most, bars + by));
    const changed = spanOver(section, barsPerPass(document, section), wanted);
    return wanted === bars || !isFitting([changed]) ? section : changed;
  });
}

/** Plays the riff so many whole passes more; at least once, and cut where the next section begins. */
export function addPasses(document: SongDocument, id: string, by: number): SongDocument {
  const section = document.sections.find((s) => s.id === id);
  if (!section) return document;
  const perPass = barsPerPass(document, section);
  const wanted = Math.max(1, Math.min(COUNT_LIMITS.passes, section.passes + by));
  const bars = Math.max(1, wanted * perPass - section.skipBars);
  return lengthenSection(document, id, bars - sectionBars(document, section));
}

/** Plays another riff, or none, over the same bars. */
export function setSectionRiff(document: SongDocument, id: string, riffId: string | null): SongDocument {
  if (riffId !== null && !document.riffs.some((r) => r.id === riffId)) return document;
  return changeSection(document, id, (section) => {
    if (section.riffId === riffId) return section;
    const other = { ...section, riffId, answers: [], settled: [] };
    const changed = spanOver(other, barsPerPass(document, other), sectionBars(document, section), 0);
    return isFitting([changed]) ? changed : section;
  });
}

export function setSectionTranspose(document: SongDocument, id: string, transpose: number): SongDocument {
  return changeSection(document, id, (s) =>
    s.transpose === transpose || !isWithin(transpose, RANGES.transpose) ? s : { ...s, transpose },
  );
}

/** The key of a section; null gives back what was heard. */
export function setSectionKey(document: SongDocument, id: string, key: Key | null): SongDocument {
  return changeSection(document, id, (s) =>
    s.key?.tonic === key?.tonic && s.key?.mode === key?.mode ? s : { ...s, key },
  );
}

/** How the guitar sounds here, in the player's words. */
export function setSectionTone(document: SongDocument, id: string, tone: string): SongDocument {
  const fitting = fitText(tone, TEXT_LIMITS.name);
  return changeSection(document, id, (s) => (s.tone === fitting ? s : { ...s, tone: fitting }));
}

const SECOND_PART = ', second part';

/** What the later half of a section is called; a long name gives way to what tells the halves apart. */
function partName(name: string): string {
  return `${fitText(name, TEXT_LIMITS.name - SECOND_PART.length)}${SECOND_PART}`;
}

/** Why a section can't be split at a bar; null when it can. */
export function whyNotSplit(document: SongDocument, id: string, bar: number): Refusal | null {
  const section = document.sections.find((s) => s.id === id);
  if (!section) return { kind: 'no-section' };
  const isInside = bar > section.startBar && bar < endBarOf(document, section);
  return isInside ? null : { kind: 'not-inside', section: section.name };
}

/** Two sections out of one, at a bar: the riff goes on over the cut. */
export function splitSection(document: SongDocument, id: string, bar: number, newId: string): SongDocument {
  if (whyNotSplit(document, id, bar) !== null || document.sections.length >= COUNT_LIMITS.sections)
    return document;
  const sections = document.sections.flatMap((s) => {
    if (s.id !== id) return [s];
    const perPass = barsPerPass(document, s);
    const second = withoutFirstBars(s, perPass, bar - s.startBar);
    return [
      spanOver(s, perPass, bar - s.startBar),
      { ...second, id: newId, name: partName(s.name), startIsConfirmed: true },
    ];
  });
  return { ...document, sections };
}

/** Why a section can't be joined with the next one; null when it can. */
export function whyNotJoin(document: SongDocument, id: string): Refusal | null {
  const index = document.sections.findIndex((s) => s.id === id);
  const [section, next] = [document.sections[index], document.sections[index + 1]];
  if (!section || !next) return { kind: 'no-next-section' };
  if (section.riffId !== next.riffId) return { kind: 'other-riff', section: next.name };
  if (section.passes + next.passes > COUNT_LIMITS.passes) return { kind: 'too-many-passes' };
  if (section.transpose !== next.transpose) return { kind: 'other-height', section: next.name };
  const bars = next.startBar - endBarOf(document, section);
  if (bars !== 0) return { kind: 'bars-between', bars };
  const perPass = barsPerPass(document, section);
  const goesOn = (section.skipBars + sectionBars(document, section)) % perPass === next.skipBars;
  return goesOn ? null : { kind: 'begins-anew', section: next.name };
}

export function joinWithNext(document: SongDocument, id: string): SongDocument {
  if (whyNotJoin(document, id) !== null) return document;
  const index = document.sections.findIndex((s) => s.id === id);
  const [section, next] = [document.sections[index], document.sections[index + 1]];
  const perPass = barsPerPass(document, section);
  // The pass that the cut went through is one again; what was decided about its first half holds.
  const passes = section.passes - (next.skipBars > 0 ? 1 : 0);
  const taken = new Set(section.answers.map((a) => a.pass));
  const later = next.answers.map((a) => ({ ...a, pass: a.pass + passes })).filter((a) => !taken.has(a.pass));
  const settled = [...section.settled, ...next.settled.map((s) => ({ ...s, pass: s.pass + passes }))];
  const bars = sectionBars(document, section) + sectionBars(document, next);
  const both = { ...section, answers: [...section.answers, ...later], settled };
  const joined = spanOver(both, perPass, bars);
  const sections = document.sections.flatMap((s, i) => (i === index ? [joined] : i === index + 1 ? [] : [s]));
  return { ...document, sections };
}

/** Takes a section away; its riff stays, also when nothing else plays it. */
export function removeSection(document: SongDocument, id: string): SongDocument {
  const sections = document.sections.filter((s) => s.id !== id);
  return sections.length === document.sections.length ? document : { ...document, sections };
}

/** Bars of a riff that is made for a new part: a common length, and every other one is a press away. */
const NEW_RIFF_BARS = 4;

/** Why no part can begin at a bar; null when one can. */
export function whyNotBegin({ grid, sections }: SongDocument, bar: number): Refusal | null {
  if (grid.bars.length === 0) return { kind: 'no-beats' };
  if (bar < 0 || bar >= grid.bars.length) return { kind: 'no-bars-here' };
  const there = sections.find((s) => s.startBar === bar);
  return there ? { kind: 'begins-already', section: there.name } : null;
}

/**
 * A new part with a riff of its own from a bar on: to the next section, or, where it begins inside of one, to the end of that one,
 * which then ends here.
 */
export function beginPart(
  document: SongDocument,
  bar: number,
  ids: { readonly sectionId: string; readonly riffId: string },
): SongDocument {
  const hasRoom =
    document.sections.length < COUNT_LIMITS.sections && document.riffs.length < COUNT_LIMITS.riffs;
  if (whyNotBegin(document, bar) !== null || !hasRoom) return document;
  const before = document.sections.findLast((s) => s.startBar < bar);
  const isInside = before !== undefined && endBarOf(document, before) > bar;
  const next = document.sections.find((s) => s.startBar > bar);
  const end = isInside ? endBarOf(document, before) : (next?.startBar ?? document.grid.bars.length);
  const riffBars = document.grid.bars
    .slice(bar, Math.min(end, bar + NEW_RIFF_BARS))
    .map(({ beats, unit }) => ({ beats, unit }));
  const letter = nextLetter(document.riffs);
  const riff = { ...PLAIN_RIFF, id: ids.riffId, letter, name: `Riff ${letter}`, bars: riffBars, strums: [] };
  const part = spanOver(
    {
      ...PLAIN_SECTION,
      id: ids.sectionId,
      name: freeName(document),
      riffId: riff.id,
      startBar: bar,
      passes: 1,
      transpose: 0,
      startIsConfirmed: true,
    },
    riffBars.length,
    end - bar,
  );
  const sections = document.sections.map((s) =>
    isInside && s === before ? spanOver(s, barsPerPass(document, s), bar - s.startBar) : s,
  );
  sections.splice(before ? document.sections.indexOf(before) + 1 : 0, 0, part);
  return isFitting(sections) ? { ...document, riffs: [...document.riffs, riff], sections } : document;
}

/** 'Part 3': the first that no section has. */
function freeName({ sections }: SongDocument): string {
  const taken = new Set(sections.map((s) => s.name));
  for (let n = sections.length + 1; ; n++) if (!taken.has(`Part ${n}`)) return `Part ${n}`;
}

/** '×4'; '7 bars' where the riff is cut. */
export function passesWords(document: Pick<SongDocument, 'riffs'>, section: Section): string {
  if (section.riffId !== null && section.skipBars + section.cutBars === 0) return `×${section.passes}`;
  const bars = sectionBars(document, section);
  return bars === 1 ? '1 bar' : `${bars} bars`;
}

/** 'Intro A×4, Verse 1 B×4, Bridge C 7 bars': the order of play as one line. */
export function orderOfPlay({ sections, riffs }: SongDocument): string {
  return sections
    .map((s) => {
      const letter = riffs.find((r) => r.id === s.riffId)?.letter;
      if (letter === undefined) return s.name;
      const moved = s.transpose === 0 ? '' : s.transpose > 0 ? `+${s.transpose}` : `−${-s.transpose}`;
      const passes = passesWords({ riffs }, s);
      return `${s.name} ${letter}${moved}${passes.startsWith('×') ? '' : ' '}${passes}`;
    })
    .join(', ');
}

/** All sections anew, as from a label track. Riffs stay, also those that nothing plays now. */
export function setSections(document: SongDocument, sections: readonly Section[]): SongDocument {
  const isFitting = sections.length > 0 && sections.length <= COUNT_LIMITS.sections;
  return isFitting ? { ...document, sections } : document;
}
