/** How far a song is, as its document says it: one rule for each step of the work, and what is missing there. */
import type { SongDocument } from './document';
import { barStartsTicks } from './grid';
import { sectionBars } from './section-span';
import { checkedBySection, strumsInPasses } from './strums-in-passes';

export interface SectionProgress {
  readonly name: string;
  readonly bars: number;
  /** Bars in which no strum waits to be checked; none where the section has no strums at all. */
  readonly checkedBars: number;
}

export interface SongProgress {
  /** Shares from 0 to 1. */
  readonly tuning: number;
  readonly sections: number;
  readonly riffs: number;
  readonly check: number;
  /** Sections that have a name of their own, or whose start was confirmed. */
  readonly namedSections: number;
  /** Name of the first section whose riff is not written; '' where all are. */
  readonly unwritten: string;
  /** Strums in all passes that are not settled. */
  readonly toSettle: number;
  readonly bars: readonly SectionProgress[];
}

/** What a draft calls its sections until somebody names them. */
const DRAFT_NAME = /^(Part \d+)?$/;

/**
 * - Tuning: none without strums, half as it was heard, whole once a strum in it was checked.
 * - Sections: share of those that are named or confirmed.
 * - Riffs: share of the sections with a riff whose riff has strums.
 * - Check: share of the strums of all passes that were checked.
 */
export function progressOf(document: SongDocument): SongProgress {
  const { riffs, sections } = document;
  const counts = checkedBySection(document);
  const all = [...counts.values()];
  const [checked, of] = [all.reduce((n, c) => n + c.checked, 0), all.reduce((n, c) => n + c.of, 0)];
  const written = riffs.filter((r) => r.strums.length > 0);
  const named = sections.filter((s) => s.startIsConfirmed || !DRAFT_NAME.test(s.name)).length;
  const playing = sections.filter((s) => s.riffId !== null);
  const unwritten = playing.filter((s) => !written.some((r) => r.id === s.riffId));
  const isTunedSurely = written.some((r) => r.strums.some((s) => s.trust === 'checked'));
  const share = (part: number, whole: number): number => (whole > 0 ? part / whole : 0);
  return {
    tuning: written.length === 0 ? 0 : isTunedSurely ? 1 : 0.5,
    sections: share(named, sections.length),
    riffs: share(playing.length - unwritten.length, playing.length),
    check: share(checked, of),
    namedSections: named,
    unwritten: unwritten[0]?.name ?? '',
    toSettle: of - checked,
    bars: barsOf(document),
  };
}

function barsOf(document: SongDocument): SectionProgress[] {
  const open = new Map<string, Set<number>>();
  const struck = new Set<string>();
  for (const { section, pass, ticks, settled, strum, riff } of strumsInPasses(document)) {
    struck.add(section.id);
    if (settled === 'kept' || (settled === null && strum.trust === 'checked')) continue;
    const bars = open.get(section.id) ?? new Set<number>();
    open.set(
      section.id,
      bars.add(pass.index * riff.bars.length + barStartsTicks(riff).findLastIndex((start) => start <= ticks)),
    );
  }
  return document.sections.map((section) => {
    const bars = sectionBars(document, section);
    const checkedBars = struck.has(section.id) ? Math.max(0, bars - (open.get(section.id)?.size ?? 0)) : 0;
    return { name: section.name, bars, checkedBars };
  });
}
