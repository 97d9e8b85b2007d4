/**
 * The song in the order of play, with what comes again written once: a section's passes as one repeat, with endings where its passes
 * part after a common beginning, and written out where they have none.
 */
import { MAX_FRET, writtenVoicings, type Tuning } from '../../guitar';
import {
  barStartsTicks,
  playedPart,
  riffOfPass,
  riffTicks,
  sectionBars,
  strumNotes,
  type Riff,
  type RiffBar,
  type Section,
  type SongDocument,
  type Strum,
} from '../../riff';
import { TICKS_PER_QUARTER, type Ticks } from '../../units';

/** A stretch of a bar that one strum, or nothing, fills; ticks from the start of the bar. */
export interface Stretch {
  /** Null: silence. */
  readonly strum: Strum | null;
  /** What was played before it, where it is reached from there. */
  readonly before: Strum | null;
  /** The strum that is reached from it without a new stroke. */
  readonly after: Strum | null;
  readonly from: Ticks;
  readonly to: Ticks;
  /** Its strum begins here, and ends here: others are tied over a bar line. */
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

export interface Measure {
  readonly bar: RiffBar;
  readonly ticks: Ticks;
  /** Of each guitar, in order, filling the bar. */
  readonly guitars: readonly (readonly Stretch[])[];
}

export interface Block {
  /** Where a section begins, its name; '' within one. */
  readonly section: string;
  /** Letter of the riff; '' for a part without one. */
  readonly letter: string;
  readonly body: readonly Measure[];
  /** Of the body; with endings, once for each pass of them. */
  readonly times: number;
  readonly endings: readonly { readonly passes: readonly number[]; readonly measures: readonly Measure[] }[];
}

/** Frets moved along the neck; on other strings where it ends, and left out where no hand reaches. */
function moved(strums: readonly Strum[], by: number, tuning: Tuning): Strum[] {
  if (by === 0) return [...strums];
  return strums.map((strum) => {
    const frets = strum.frets.map((f) => ({ ...f, fret: f.fret + by }));
    if (frets.every(({ fret }) => fret >= 0 && fret <= MAX_FRET)) return { ...strum, frets };
    const notes = strumNotes(strum, tuning).map((note) => note + by);
    return { ...strum, frets: writtenVoicings(notes, tuning)[0]?.frets ?? [] };
  });
}

/** Strums as stretches that fill the time of a riff, over bar lines: silence where nothing sounds. */
function stretchesOf(strums: readonly Strum[], end: Ticks): Omit<Stretch, 'isFirst' | 'isLast'>[] {
  const stretches: Omit<Stretch, 'isFirst' | 'isLast'>[] = [];
  const silence = { strum: null, before: null, after: null };
  let at = 0;
  strums.forEach((strum, i) => {
    const next = strums[i + 1] ?? null;
    if (strum.startTicks > at) stretches.push({ ...silence, from: at, to: strum.startTicks });
    const to = Math.min(strum.startTicks + strum.durationTicks, next?.startTicks ?? end, end);
    const before = strum.marks.join === null ? null : (strums[i - 1] ?? null);
    const after = next !== null && next.marks.join !== null ? next : null;
    stretches.push({ strum, before, after, from: strum.startTicks, to });
    at = to;
  });
  if (at < end) stretches.push({ ...silence, from: at, to: end });
  return stretches.filter(({ from, to }) => to > from);
}

/** The bars [fromBar, fromBar + bars) of what is played, for each guitar. */
function measuresOf(
  riff: Riff,
  fromBar: number,
  bars: number,
  guitars: readonly (readonly Strum[])[],
): Measure[] {
  const starts = [...barStartsTicks(riff), riffTicks(riff)];
  const all = guitars.map((strums) => stretchesOf(strums, riffTicks(riff)));
  return riff.bars.slice(fromBar, fromBar + bars).map((bar, b) => {
    const [start, end] = [starts[fromBar + b], starts[fromBar + b + 1]];
    const inBar = (stretches: (typeof all)[number]): Stretch[] =>
      stretches
        .filter(({ from, to }) => to > start && from < end)
        .map(({ from, to, ...rest }) => ({
          ...rest,
          from: Math.max(0, from - start),
          to: Math.min(end, to) - start,
          isFirst: from >= start,
          isLast: to <= end,
        }));
    return { bar, ticks: end - start, guitars: all.map(inBar) };
  });
}

/** What a measure sounds like: measures with the same text are the same. */
function textOf(measure: Measure): string {
  const strumText = (strum: Strum | null): unknown =>
    strum && [strum.frets, strum.palmMute, strum.dead, strum.rest, strum.marks, strum.note];
  return JSON.stringify([
    measure.bar,
    measure.guitars.map((stretches) =>
      stretches.map((s) => [s.from, s.to, s.isFirst, s.isLast, strumText(s.strum), strumText(s.before)]),
    ),
  ]);
}

function sharedStart(texts: readonly (readonly string[])[]): number {
  const [first] = texts;
  const differs = first.findIndex((text, i) => texts.some((other) => other[i] !== text));
  return differs < 0 ? Math.min(...texts.map((t) => t.length)) : differs;
}

/** Consecutive passes that are the same, each once. */
function runsOf(passes: readonly (readonly Measure[])[]): { measures: readonly Measure[]; times: number }[] {
  const runs: { measures: readonly Measure[]; times: number; text: string }[] = [];
  for (const measures of passes) {
    const text = measures.map(textOf).join('\n');
    const last = runs.at(-1);
    if (last?.text === text) last.times++;
    else runs.push({ measures, times: 1, text });
  }
  return runs;
}

/** Passes that begin alike and go on differently, as one body with endings; null where that does not fit. */
function withEndings(passes: readonly (readonly Measure[])[]): Pick<Block, 'body' | 'endings'> | null {
  const texts = passes.map((measures) => measures.map(textOf));
  const shared = sharedStart(texts);
  const rest = passes.map((measures) => measures.slice(shared));
  if (shared === 0 || rest.some((measures) => measures.length === 0)) return null;
  const endings = new Map<string, { passes: number[]; measures: readonly Measure[] }>();
  rest.forEach((measures, i) => {
    const text = texts[i].slice(shared).join('\n');
    const ending = endings.get(text) ?? { passes: [], measures };
    ending.passes.push(i + 1);
    endings.set(text, ending);
  });
  return { body: passes[0].slice(0, shared), endings: [...endings.values()] };
}

function blocksOf(section: string, letter: string, passes: readonly (readonly Measure[])[]): Block[] {
  const runs = runsOf(passes);
  const parted = runs.length > 1 ? withEndings(passes) : null;
  if (parted) return [{ section, letter, times: 1, ...parted }];
  return runs.map(({ measures, times }, i) => ({
    section: i === 0 ? section : '',
    letter,
    body: measures,
    times,
    endings: [],
  }));
}

/** Bars in which nothing is written. */
function emptyMeasures(document: SongDocument, section: Section, guitars: number): Measure[] {
  return Array.from({ length: sectionBars(document, section) }, (_, i) => {
    const { beats, unit } = document.grid.bars[section.startBar + i] ?? { beats: 4, unit: 4 as const };
    const ticks = (beats * 4 * TICKS_PER_QUARTER) / unit;
    const silence: Stretch = {
      ...{ strum: null, before: null, after: null, isFirst: true, isLast: true },
      from: 0,
      to: ticks,
    };
    return { bar: { beats, unit }, ticks, guitars: Array.from({ length: guitars }, () => [silence]) };
  });
}

/** In the order of play, and behind it the riffs that no section plays. */
export function songBlocks(document: SongDocument): Block[] {
  const { riffs, sections, tuning, guitar2 } = document;
  const guitarsOf = (riff: Riff, by = 0): Strum[][] => [
    moved(riff.strums, by, tuning),
    ...(guitar2 ? [moved(riff.guitar2, by, guitar2)] : []),
  ];
  const played = new Set(sections.map((s) => s.riffId));
  const alone = riffs
    .filter((riff) => !played.has(riff.id))
    .map((riff): Block => ({
      section: riff.name,
      letter: riff.letter,
      body: measuresOf(riff, 0, riff.bars.length, guitarsOf(riff)),
      times: 1,
      endings: [],
    }));
  const inOrder = sections.flatMap((section) => {
    const riff = riffs.find((r) => r.id === section.riffId);
    if (!riff) return blocksOf(section.name, '', [emptyMeasures(document, section, guitar2 ? 2 : 1)]);
    const passes = Array.from({ length: section.passes }, (_, index) => {
      const part = playedPart(riff, section, index);
      const played = riffOfPass(riff, section, { ...part, index });
      return measuresOf(riff, part.fromBar, part.bars, guitarsOf(played, section.transpose));
    });
    return blocksOf(
      section.name,
      riff.letter,
      passes.filter((measures) => measures.length > 0),
    );
  });
  return [...inOrder, ...alone];
}
