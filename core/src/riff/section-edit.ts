/** Sections by hand: split, join, rename, move, repeat. What can't be done returns the same document. */
import type { Section, SongDocument } from './document';
import { COUNT_LIMITS, fitText, isWithin, RANGES, TEXT_LIMITS } from './limits';
import type { Refusal } from './refusal';

function lengthOf(document: SongDocument, section: Section): number {
  return document.riffs.find((r) => r.id === section.riffId)?.bars.length ?? 1;
}

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
    first: before ? before.startBar + before.passes * lengthOf(document, before) : 0,
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
    const latest = end - section.passes * lengthOf(document, section);
    const startBar = Math.min(Math.max(first, section.startBar + bars), Math.max(first, latest));
    return startBar === section.startBar ? section : { ...section, startBar };
  });
}

/** Says that a section begins where it is written. */
export function confirmStart(document: SongDocument, id: string): SongDocument {
  return changeSection(document, id, (s) => (s.startIsConfirmed ? s : { ...s, startIsConfirmed: true }));
}

/** Decisions about passes that are not there any more are dropped. */
function withPasses(section: Section, passes: number): Section {
  return { ...section, passes, answers: section.answers.filter((a) => a.pass < passes) };
}

/** A section that begins so many passes later; decisions about the passes that are left keep their pass. */
export function withoutFirstPasses(section: Section, count: number, bars: number): Section {
  return {
    ...section,
    startBar: section.startBar + count * bars,
    passes: section.passes - count,
    answers: section.answers.filter((a) => a.pass >= count).map((a) => ({ ...a, pass: a.pass - count })),
  };
}

/**
 * Begins a section at a bar and keeps its end as nearly as whole passes allow; the section before gives way. Nothing
 * changes where either would be left without a pass.
 */
export function beginSection(document: SongDocument, id: string, startBar: number): SongDocument {
  const index = document.sections.findIndex((s) => s.id === id);
  const section = document.sections[index];
  if (!section || startBar < 0 || startBar === section.startBar) return document;
  const length = lengthOf(document, section);
  const end = section.startBar + section.passes * length;
  const passes = Math.min(
    Math.round((end - startBar) / length),
    Math.floor((roomOf(document, index).end - startBar) / length),
  );
  const before = document.sections[index - 1];
  const lengthBefore = before ? lengthOf(document, before) : 1;
  const passesBefore = before ? Math.floor((startBar - before.startBar) / lengthBefore) : 1;
  if (passes < 1 || passesBefore < 1) return document;
  const sections = document.sections.map((s, i) => {
    if (i === index) return { ...withPasses(s, passes), startBar };
    return i === index - 1 && passesBefore < s.passes ? withPasses(s, passesBefore) : s;
  });
  return { ...document, sections };
}

/** Plays the riff so many times more; at least once, and not into the next section. */
export function addPasses(document: SongDocument, id: string, by: number): SongDocument {
  return changeSection(document, id, (section, index) => {
    const { end } = roomOf(document, index);
    const most = Math.floor((end - section.startBar) / lengthOf(document, section));
    const passes = Math.max(1, Math.min(Math.max(1, most), COUNT_LIMITS.passes, section.passes + by));
    return passes === section.passes ? section : withPasses(section, passes);
  });
}

/** Plays another riff, in as many passes as fit into the same bars. */
export function setSectionRiff(document: SongDocument, id: string, riffId: string): SongDocument {
  const riff = document.riffs.find((r) => r.id === riffId);
  if (!riff) return document;
  return changeSection(document, id, (section) => {
    if (section.riffId === riffId) return section;
    const bars = section.passes * lengthOf(document, section);
    const passes = Math.min(COUNT_LIMITS.passes, Math.max(1, Math.floor(bars / riff.bars.length)));
    return { ...section, riffId, answers: [], passes };
  });
}

export function setSectionTranspose(document: SongDocument, id: string, transpose: number): SongDocument {
  return changeSection(document, id, (s) =>
    s.transpose === transpose || !isWithin(transpose, RANGES.transpose) ? s : { ...s, transpose },
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

/** Two sections out of one, at the pass boundary nearest to a bar. */
export function splitSection(document: SongDocument, id: string, bar: number, newId: string): SongDocument {
  const index = document.sections.findIndex((s) => s.id === id);
  const section = document.sections[index];
  if (!section || section.passes < 2 || document.sections.length >= COUNT_LIMITS.sections) return document;
  const length = lengthOf(document, section);
  const passes = Math.round((bar - section.startBar) / length);
  const before = Math.min(section.passes - 1, Math.max(1, passes));
  const rest = withoutFirstPasses(section, before, length);
  const second = { ...rest, id: newId, name: partName(section.name) };
  const sections = document.sections.flatMap((s, i) => (i === index ? [withPasses(s, before), second] : [s]));
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
  const bars = next.startBar - section.startBar - section.passes * lengthOf(document, section);
  return bars === 0 ? null : { kind: 'bars-between', bars };
}

export function joinWithNext(document: SongDocument, id: string): SongDocument {
  if (whyNotJoin(document, id) !== null) return document;
  const index = document.sections.findIndex((s) => s.id === id);
  const next = document.sections[index + 1];
  const { passes, answers } = document.sections[index];
  const joined = {
    passes: passes + next.passes,
    answers: [...answers, ...next.answers.map((a) => ({ ...a, pass: a.pass + passes }))],
  };
  const sections = document.sections.flatMap((s, i) =>
    i === index ? [{ ...s, ...joined }] : i === index + 1 ? [] : [s],
  );
  return { ...document, sections };
}

/** 'Intro A×4', 'Verse 1 B×4 B+2×4': the order of play as one line. */
export function orderOfPlay({ sections, riffs }: SongDocument): string {
  return sections
    .map((s) => {
      const letter = riffs.find((r) => r.id === s.riffId)?.letter ?? '?';
      const moved = s.transpose === 0 ? '' : s.transpose > 0 ? `+${s.transpose}` : `−${-s.transpose}`;
      return `${s.name} ${letter}${moved}×${s.passes}`;
    })
    .join(', ');
}

/** All sections anew, as from a label track. Riffs stay, also those that nothing plays now. */
export function setSections(document: SongDocument, sections: readonly Section[]): SongDocument {
  const isFitting = sections.length > 0 && sections.length <= COUNT_LIMITS.sections;
  return isFitting ? { ...document, sections } : document;
}
