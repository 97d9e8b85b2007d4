/**
 * The bars that a section covers, and how its riff lies on them: in whole passes, of which the first may lack bars at its start
 * and the last at its end, as where a part is cut in the middle of a riff.
 */
import type { Riff, Section, SongDocument } from './document';
import { barStartsTicks, riffTicks, timeAtBeat } from './grid';
import type { Ticks } from '../units';

/** Bars of the section's riff; a part without a riff counts bar by bar. */
export function barsPerPass({ riffs }: Pick<SongDocument, 'riffs'>, { riffId }: Section): number {
  return riffs.find((r) => r.id === riffId)?.bars.length ?? 1;
}

export function sectionBars(document: Pick<SongDocument, 'riffs'>, section: Section): number {
  return section.passes * barsPerPass(document, section) - section.skipBars - section.cutBars;
}

/** Index of the first bar behind it. */
export function endBarOf(document: Pick<SongDocument, 'riffs'>, section: Section): number {
  return section.startBar + sectionBars(document, section);
}

/**
 * The section over so many bars from its start, its riff begun `skipBars` into a pass. Decisions about passes that are not there
 * any more are dropped.
 */
export function spanOver(
  section: Section,
  perPass: number,
  bars: number,
  skipBars = section.skipBars,
): Section {
  const passes = Math.ceil((skipBars + bars) / perPass);
  const cutBars = passes * perPass - skipBars - bars;
  const isThere = ({ pass }: { readonly pass: number }): boolean => pass < passes;
  const [answers, settled] = [section.answers.filter(isThere), section.settled.filter(isThere)];
  return { ...section, passes, skipBars, cutBars, answers, settled };
}

/** A section that begins so many bars later and ends where it did; its riff goes on as it was. */
export function withoutFirstBars(section: Section, perPass: number, bars: number): Section {
  const skipped = section.skipBars + bars;
  const passes = Math.floor(skipped / perPass);
  const rest = section.passes * perPass - section.skipBars - section.cutBars - bars;
  const later = <T extends { readonly pass: number }>(all: readonly T[]): T[] =>
    all.filter((one) => one.pass >= passes).map((one) => ({ ...one, pass: one.pass - passes }));
  return spanOver(
    {
      ...section,
      startBar: section.startBar + bars,
      answers: later(section.answers),
      settled: later(section.settled),
    },
    perPass,
    rest,
    skipped % perPass,
  );
}

/** The same bars, where its riff has another length than before. */
export function spanSame(section: Section, before: number, perPass: number): Section {
  const bars = section.passes * before - section.skipBars - section.cutBars;
  return spanOver(section, perPass, bars, section.skipBars % perPass);
}

/** The part of the riff that a pass plays, in ticks and bars of the riff. */
export interface PlayedPart {
  readonly fromBar: number;
  readonly bars: number;
  readonly fromTicks: Ticks;
  readonly toTicks: Ticks;
}

export function playedPart(riff: Riff, section: Section, pass: number): PlayedPart {
  const fromBar = pass === 0 ? section.skipBars : 0;
  const endBar = riff.bars.length - (pass === section.passes - 1 ? section.cutBars : 0);
  const starts = [...barStartsTicks(riff), riffTicks(riff)];
  return { fromBar, bars: endBar - fromBar, fromTicks: starts[fromBar], toTicks: starts[endBar] };
}

/** When a section begins and ends, as far as the recording has bars for it; null where it has none. */
export function sectionTimesS(
  document: SongDocument,
  section: Section,
): { readonly startS: number; readonly endS: number } | null {
  const { grid } = document;
  const first = grid.bars[section.startBar];
  const last = grid.bars[Math.min(endBarOf(document, section), grid.bars.length) - 1];
  if (!first || !last) return null;
  return { startS: timeAtBeat(grid, first.beat), endS: timeAtBeat(grid, last.beat + last.beats) };
}
