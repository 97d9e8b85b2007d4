/**
 * Another grid under a song that is written already. Written strums keep their place in the sound: each is placed anew by the
 * instant at which its riff is played first. Where they keep their counts instead, riffs stay as they are written. Sections stay at
 * their times, at the nearest bars.
 */
import type { Ticks } from '../units';
import { TICKS_PER_QUARTER } from '../units';
import {
  PLAIN_SECTION,
  type BarNote,
  type BeatGrid,
  type Riff,
  type Section,
  type SongDocument,
  type Strum,
  type Variation,
} from './document';
import { barStartsTicks, isFittingGrid, nearestBarLine, riffTicks } from './grid';
import { fitText, TEXT_LIMITS } from './limits';
import { passesOf, passTicksToSeconds, secondsToPassTicks, type Pass } from './passes';
import { quantise, SIXTEENTH } from './quantise';
import { barsPerPass, sectionBars, sectionTimesS, spanOver } from './section-span';
import { withVariation } from './variation';

export type Keeps = 'sound' | 'counts';

/** Places under a sixteenth are kept apart by this much, as they were written. */
const FINE: Ticks = TICKS_PER_QUARTER / 8;
/** A place that moves by less has not moved. */
const SAME_TICKS = 1;

/** A riff placed anew, and what has become of one of its instants. */
interface Placed {
  readonly riff: Riff;
  readonly at: (ticks: Ticks) => number;
}

/** The pass that a riff is placed by: the first one that is whole. */
function referencePass({ sections, grid }: SongDocument, riff: Riff): Pass | undefined {
  const passes = sections.filter((s) => s.riffId === riff.id).flatMap((s) => passesOf(s, riff, grid));
  const length = riffTicks(riff);
  return passes.find((p) => p.fromTicks === 0 && p.toTicks === length) ?? passes[0];
}

/** One pass over so many bars of a grid. */
function passOver(riff: Riff, startBar: number, grid: BeatGrid): Pass | undefined {
  const once = { id: '', name: '', riffId: riff.id, startBar, passes: 1, transpose: 0 };
  const section = { ...PLAIN_SECTION, ...once };
  return passesOf(section, riff, grid)[0];
}

function moved(strums: readonly Strum[], at: Placed['at'], length: Ticks): Strum[] {
  const raw = strums.map((s) => at(s.startTicks));
  const byBeat = quantise(raw);
  const taken = new Set<Ticks>();
  const placed = strums.map((strum, i): Strum => {
    const isFine = strum.startTicks % FINE === 0 && strum.startTicks % SIXTEENTH !== 0;
    let startTicks = isFine ? FINE * Math.round(raw[i] / FINE) : byBeat[i];
    // The riff comes round again: what falls over its end stands at its start.
    startTicks = ((Math.round(startTicks) % length) + length) % length;
    // Two on one place: the later one gives way, nothing is lost.
    for (let step = FINE / 2; taken.has(startTicks); step = 1) startTicks = (startTicks + step) % length;
    taken.add(startTicks);
    const sounding = at(strum.startTicks + strum.durationTicks) - raw[i];
    const durationTicks = Math.max(FINE, FINE * Math.round(sounding / FINE));
    return { ...strum, startTicks, durationTicks };
  });
  return placed.sort((a, b) => a.startTicks - b.startTicks);
}

function movedVariation(riff: Riff, variation: Variation, { at, riff: { bars } }: Placed): Variation {
  const length = riffTicks({ ...riff, bars });
  const onBeat = (ticks: Ticks): Ticks => SIXTEENTH * Math.round(at(ticks) / SIXTEENTH);
  const [fromTicks, toTicks] = [onBeat(variation.fromTicks), onBeat(variation.toTicks)];
  if (fromTicks >= 0 && toTicks <= length && toTicks > fromTicks) {
    const inside = (strums: readonly Strum[]): Strum[] =>
      moved(strums, at, length).map((s) => ({
        ...s,
        startTicks: Math.min(toTicks - 1, Math.max(fromTicks, s.startTicks)),
      }));
    return {
      ...variation,
      fromTicks,
      toTicks,
      strums: inside(variation.strums),
      guitar2: inside(variation.guitar2),
    };
  }
  // It comes round over the end of the riff: then it stands for the whole of it, under ids of its own.
  const own = new Set([...variation.strums, ...variation.guitar2].map((s) => s.id));
  const whole = (strums: readonly Strum[]): Strum[] =>
    moved(strums, at, length).map((s) =>
      own.has(s.id) ? s : { ...s, id: `${variation.id}/${s.id}`.slice(-80) },
    );
  const played = withVariation(riff, variation);
  return {
    ...variation,
    fromTicks: 0,
    toTicks: length,
    strums: whole(played.strums),
    guitar2: whole(played.guitar2),
  };
}

/** Notes of bars on other bars; where two come together they are one. */
function notesOn(notes: readonly BarNote[], barAt: (bar: number) => number): BarNote[] {
  const byBar = new Map<number, BarNote>();
  for (const note of notes) {
    const bar = barAt(note.bar);
    const there = byBar.get(bar);
    const text = there ? fitText(`${there.text}; ${note.text}`, TEXT_LIMITS.note) : note.text;
    byBar.set(bar, { bar, text, todo: note.todo || (there?.todo ?? false) });
  }
  return [...byBar.values()].sort((a, b) => a.bar - b.bar);
}

/** The riff on another grid, over the bars that are nearest to those it was played on; the same where nothing moves. */
function placeRiff(document: SongDocument, riff: Riff, grid: BeatGrid): Riff {
  const before = referencePass(document, riff);
  if (!before) return riff;
  const length = riffTicks(riff);
  const timeOf = (ticks: Ticks): number => passTicksToSeconds(before, document.grid, ticks);
  const startBar = Math.min(grid.bars.length - 1, nearestBarLine(grid, timeOf(0)));
  const endBar = Math.max(startBar + 1, nearestBarLine(grid, timeOf(length)));
  const bars = grid.bars.slice(startBar, endBar).map(({ beats, unit }) => ({ beats, unit }));
  const after = passOver({ ...riff, bars }, startBar, grid);
  if (!after) return riff;
  const at = (ticks: Ticks): number => secondsToPassTicks(after, grid, timeOf(ticks));
  const strums = [riff, ...riff.variations].flatMap((part) => [...part.strums, ...part.guitar2]);
  const isSame =
    JSON.stringify(bars) === JSON.stringify(riff.bars.map(({ beats, unit }) => ({ beats, unit }))) &&
    strums.every((s) => Math.abs(at(s.startTicks) - s.startTicks) < SAME_TICKS);
  if (isSame) return riff;
  const placed = { ...riff, bars };
  const newLength = riffTicks(placed);
  const starts = barStartsTicks(placed);
  const oldStarts = barStartsTicks(riff);
  const barAt = (bar: number): number => {
    const ticks = ((Math.round(at(oldStarts[bar])) % newLength) + newLength) % newLength;
    return starts.findLastIndex((start) => start <= ticks + SIXTEENTH);
  };
  const notes = notesOn(riff.barNotes, barAt);
  const groups = riff.groups.map((g) => ({
    ...g,
    startBar: barAt(g.startBar),
    bars: Math.max(1, Math.round((g.bars * bars.length) / riff.bars.length)),
  }));
  return {
    ...placed,
    strums: moved(riff.strums, at, newLength),
    guitar2: moved(riff.guitar2, at, newLength),
    variations: riff.variations.map((v) => movedVariation(riff, v, { riff: placed, at })),
    barNotes: notes,
    groups: groups.filter(
      (g, i) =>
        g.startBar + g.bars <= bars.length &&
        groups
          .slice(0, i)
          .every((o) => o.startBar + o.bars <= g.startBar || o.startBar >= g.startBar + g.bars),
    ),
  };
}

/** Sections of the document at their times on another grid; none reaches into the next. */
function placeSections(
  document: SongDocument,
  grid: BeatGrid,
  riffs: readonly Riff[],
  keeps: Keeps,
): Section[] {
  let free = 0;
  const placed = document.sections.map((section) => {
    const times = sectionTimesS(document, section);
    const startBar = Math.max(free, times ? nearestBarLine(grid, times.startS) : 0);
    free = startBar + 1;
    const endBar =
      times && keeps === 'sound'
        ? Math.max(free, nearestBarLine(grid, times.endS))
        : startBar + sectionBars(document, section);
    return { section, startBar, endBar };
  });
  return placed.map(({ section, startBar, endBar }, i) => {
    const bars = Math.min(endBar, placed[i + 1]?.startBar ?? Infinity) - startBar;
    const perPass = barsPerPass({ riffs }, section);
    const before = barsPerPass(document, section);
    const skipBars = Math.round((section.skipBars * perPass) / before) % perPass;
    return { ...spanOver(section, perPass, bars, skipBars), startBar };
  });
}

/** The song on another grid; the same document where that has no bars or is over the limits. */
export function replaceGrid(document: SongDocument, grid: BeatGrid, keeps: Keeps = 'sound'): SongDocument {
  if (!isFittingGrid(grid)) return document;
  const riffs =
    keeps === 'counts' ? document.riffs : document.riffs.map((riff) => placeRiff(document, riff, grid));
  return { ...document, grid, riffs, sections: placeSections(document, grid, riffs, keeps) };
}
