/**
 * Bars put right by hand: where they begin, how long they are, where there are none. What is written keeps its place: in the sound,
 * unless a change says that it keeps its place in the bar. Each change returns the same document where it can't be made;
 * `whyNot` functions say why.
 */
import type { Bar, BeatGrid, Riff, Section, SongDocument, Strum, Variation } from './document';
import { barsOfMeter, isFittingGrid, LEAST_BEAT_S, riffTicks, ticksPerBeat, timeAtBeat } from './grid';
import { COUNT_LIMITS, isWithin, RANGES, TEXT_LIMITS } from './limits';
import type { Refusal } from './refusal';
import { barsPerPass, endBarOf, spanOver, withoutFirstBars } from './section-span';
import { withVariation } from './variation';

function turned(riff: Riff, byTicks: number): Riff {
  const length = riffTicks(riff);
  const turn = (ticks: number): number => (((ticks + byTicks) % length) + length) % length;
  const turnAll = (strums: readonly Strum[]): Strum[] =>
    strums.map((s) => ({ ...s, startTicks: turn(s.startTicks) })).sort((a, b) => a.startTicks - b.startTicks);
  const variations = riff.variations.map((v): Variation => {
    const fromTicks = turn(v.fromTicks);
    const toTicks = fromTicks + v.toTicks - v.fromTicks;
    if (toTicks <= length) {
      return { ...v, fromTicks, toTicks, strums: turnAll(v.strums), guitar2: turnAll(v.guitar2) };
    }
    // It would come round over the end of the riff: then it stands for the whole of it.
    const played = withVariation(riff, v);
    return {
      ...v,
      fromTicks: 0,
      toTicks: length,
      strums: turnAll(renamed(played.strums, v)),
      guitar2: turnAll(renamed(played.guitar2, v)),
    };
  });
  return { ...riff, strums: turnAll(riff.strums), guitar2: turnAll(riff.guitar2), variations };
}

/** Strums of the riff that become a variation's own need ids of their own; it may have such ones from an earlier turn. */
function renamed(strums: readonly Strum[], { id, strums: own, guitar2 }: Variation): Strum[] {
  const owned = new Set([...own, ...guitar2].map((s) => s.id));
  const freeId = (name: string): string => {
    const fitted = name.slice(-TEXT_LIMITS.id);
    return owned.has(fitted) ? freeId(`${name}+`) : fitted;
  };
  return strums.map((s) => (owned.has(s.id) ? s : { ...s, id: freeId(`${id}/${s.id}`) }));
}

/** Bars without a gap between them, with the index of the first. */
interface Stretch {
  readonly from: number;
  readonly bars: readonly Bar[];
}

function endOf({ beat, beats }: Bar): number {
  return beat + beats;
}

function stretchesOf(bars: readonly Bar[]): Stretch[] {
  const stretches: { from: number; bars: Bar[] }[] = [];
  bars.forEach((bar, i) => {
    if (i > 0 && endOf(bars[i - 1]) === bar.beat) stretches.at(-1)!.bars.push(bar);
    else stretches.push({ from: i, bars: [bar] });
  });
  return stretches;
}

/** Bars of one meter over [from, to); one that does not fit whole is the first. */
function barsOver(from: number, to: number, { beats, unit }: Omit<Bar, 'beat'>): Bar[] {
  const bars: Bar[] = [];
  for (let end = to; end > from; end = Math.max(from, end - beats)) {
    const beat = Math.max(from, end - beats);
    bars.unshift({ beat, beats: end - beat, unit });
  }
  return bars;
}

/**
 * The bars of a stretch with every line so many beats later. The stretch keeps its beats: what is left over at its ends are
 * shorter bars, which a move back makes whole again. `moved` says for each bar what it has become, null where nothing is left.
 */
function shiftLines(bars: readonly Bar[], by: number): { bars: Bar[]; moved: (Bar | null)[] } {
  const [first, second] = bars;
  const [last, beforeLast] = [bars[bars.length - 1], bars.at(-2)];
  const [from, to] = [first.beat, last.beat + last.beats];
  const isShort = (bar: Bar, whole: Bar | undefined): whole is Bar =>
    whole?.unit === bar.unit && bar.beats < whole.beats;
  // A short bar at an end is the rest of a whole one that begins before the stretch, or ends behind it.
  const starts = bars.map((bar, i) =>
    i === 0 && isShort(bar, second) ? bar.beat + bar.beats - second.beats : bar.beat,
  );
  const end = isShort(last, beforeLast) && bars.length > 1 ? last.beat + beforeLast.beats : to;
  const lines = [...starts, end].map((beat) => beat + by);
  const clip = (beat: number): number => Math.min(to, Math.max(from, beat));
  const moved = bars.map(({ unit }, i): Bar | null => {
    const [beat, next] = [clip(lines[i]), clip(lines[i + 1])];
    return next > beat ? { beat, beats: next - beat, unit } : null;
  });
  const before = barsOver(from, clip(lines[0]), isShort(first, second) ? second : first);
  const behind = barsOfMeter(clip(lines[bars.length]), to, isShort(last, beforeLast) ? beforeLast : last);
  return { bars: [...before, ...moved.filter((b) => b !== null), ...behind], moved };
}

/**
 * Every bar line a number of beats later (earlier when negative). `keeps` 'sound': strums stay where they sound and turn
 * within their riff, since it comes round again; 'bar': they move along with the bar lines. Sections keep their bars as far as
 * there is anything left of them.
 */
export function moveDownbeat(
  document: SongDocument,
  beats: number,
  keeps: 'sound' | 'bar' = 'sound',
): SongDocument {
  const { beatsS, bars } = document.grid;
  const longest = bars.reduce((most, bar) => Math.max(most, bar.beats), 0);
  if (beats === 0 || Math.abs(beats) > longest) return document;
  const shifted = stretchesOf(bars).map((stretch) => shiftLines(stretch.bars, beats));
  const movedBars = shifted.flatMap((s) => s.bars);
  const moved = shifted.flatMap((s) => s.moved);
  if (movedBars.length > COUNT_LIMITS.bars) return document;
  const indexOf = (bar: Bar | null): number => (bar ? movedBars.findIndex((b) => b.beat === bar.beat) : -1);
  let free = 0;
  const sections = document.sections.map((section): Section => {
    const perPass = barsPerPass(document, section);
    const own = moved.slice(section.startBar, endBarOf(document, section));
    const lost = own.findIndex((bar) => bar !== null);
    const left = own.filter((bar) => bar !== null).length;
    // Nothing is left of it: it keeps a bar where it was.
    const startBar = Math.max(
      free,
      lost < 0 ? Math.min(section.startBar, movedBars.length - 1) : indexOf(own[lost]),
    );
    const later = lost > 0 ? withoutFirstBars(section, perPass, lost) : section;
    const fitted = lost < 0 || left < own.length ? spanOver(later, perPass, Math.max(1, left)) : later;
    free = startBar + Math.max(1, left);
    return { ...fitted, startBar };
  });
  const turn = (riff: Riff): Riff => turned(riff, -beats * ticksPerBeat(riff.bars[0]?.unit ?? 4));
  return {
    ...document,
    grid: { beatsS, bars: movedBars },
    riffs: keeps === 'sound' ? document.riffs.map(turn) : document.riffs,
    sections,
  };
}

/** Puts the first beat of a bar at a time; the beats of the bars on both sides are spread evenly again. */
export function moveBarLine(document: SongDocument, barIndex: number, timeS: number): SongDocument {
  const { beatsS, bars } = document.grid;
  const [before, bar] = [bars[barIndex - 1], bars[barIndex]];
  if (!bar) return document;
  const from = before?.beat ?? Math.max(0, bar.beat - 1);
  const to = Math.min(beatsS.length - 1, bar.beat + bar.beats);
  const least = beatsS[from] + LEAST_BEAT_S * (bar.beat - from);
  const most = beatsS[to] - LEAST_BEAT_S * (to - bar.beat);
  if (to <= bar.beat || least > most || !isWithin(timeS, RANGES.timeS)) return document;
  const at = bar.beat === 0 ? Math.min(timeS, most) : Math.min(most, Math.max(least, timeS));
  const moved = beatsS.map((t, i) => {
    if (i > from && i <= bar.beat)
      return beatsS[from] + ((at - beatsS[from]) * (i - from)) / (bar.beat - from);
    if (i > bar.beat && i < to) return at + ((beatsS[to] - at) * (i - bar.beat)) / (to - bar.beat);
    return i === bar.beat ? at : t;
  });
  return { ...document, grid: { beatsS: moved, bars } };
}

/** Gives one bar another number of beats; the bars behind it begin earlier or later, up to the next gap. */
export function setBarBeats(document: SongDocument, barIndex: number, beats: number): SongDocument {
  const { beatsS, bars } = document.grid;
  const bar = bars[barIndex];
  if (!bar || !isWithin(beats, RANGES.beats) || beats === bar.beats) return document;
  const by = beats - bar.beats;
  const stretch = stretchesOf(bars).find((s) => barIndex < s.from + s.bars.length)!;
  const before = bars.slice(0, barIndex);
  const rest = bars.slice(stretch.from + stretch.bars.length);
  const behind = bars.slice(barIndex + 1, stretch.from + stretch.bars.length);
  const last = behind.at(-1);
  // The last bar may take the beats that are free behind it.
  const free = rest[0]?.beat ?? beatsS.length;
  const end = last ? last.beat + last.beats : Math.min(free, bar.beat + beats);
  const later = [{ ...bar, beats }, ...behind.map((b) => ({ ...b, beat: b.beat + by }))]
    .filter((b) => b.beat < end)
    .map((b) => ({ ...b, beats: Math.min(b.beats, end - b.beat) }));
  // What comes free at the end are bars again; a last one that was cut becomes whole first.
  const [tail, beforeTail] = [later[later.length - 1], later.at(-2)];
  const whole = beforeTail && behind.length > 0 && tail.beats < beforeTail.beats ? beforeTail : tail;
  const room = end - tail.beat;
  const grown = behind.length > 0 ? barsOfMeter(tail.beat, tail.beat + room, whole) : later.slice(-1);
  const changed = [...before, ...later.slice(0, -1), ...grown, ...rest];
  if (changed.length > COUNT_LIMITS.bars) return document;
  return withBars(document, { beatsS, bars: changed }, stretch.from + stretch.bars.length);
}

/**
 * The song on bars of which those before an index have another number now: sections behind it stay on theirs, and one before it ends
 * where its bars do, so that it reaches into none of them.
 */
function withBars(document: SongDocument, grid: BeatGrid, from: number): SongDocument {
  const by = grid.bars.length - document.grid.bars.length;
  const sections = document.sections.flatMap((s) => {
    if (s.startBar >= from) return [{ ...s, startBar: s.startBar + by }];
    const isFollowed = document.sections.some((other) => other.startBar >= from);
    const left = from + by - s.startBar;
    if (!isFollowed || endBarOf(document, s) <= from + by) return [s];
    return left < 1 ? [] : [spanOver(s, barsPerPass(document, s), left)];
  });
  return { ...document, grid, sections };
}

/** Why the bars [from, from + count) can't become free time; null when they can. */
export function whyNotFree(document: SongDocument, from: number, count: number): Refusal | null {
  if (count < 1 || from < 0 || from + count > document.grid.bars.length) return { kind: 'no-bars-here' };
  const playing = document.sections.find((s) => s.startBar < from + count && endBarOf(document, s) > from);
  return playing ? { kind: 'is-played-here', section: playing.name } : null;
}

/** Takes bars away where no beat is kept; the sound and what is written elsewhere stay. */
export function freeBars(document: SongDocument, from: number, count: number): SongDocument {
  if (whyNotFree(document, from, count) !== null) return document;
  const { beatsS, bars } = document.grid;
  return {
    ...document,
    grid: { beatsS, bars: bars.filter((_, i) => i < from || i >= from + count) },
    sections: document.sections.map((s) => (s.startBar >= from ? { ...s, startBar: s.startBar - count } : s)),
  };
}

/** A gap between bars, before the first or behind the last. */
interface Gap {
  /** Its first beat, and the one of the bar behind it; null at the end. */
  readonly from: number;
  readonly to: number | null;
  readonly fromS: number;
  readonly toS: number;
  /** The bar whose tempo and meter it takes. */
  readonly like: Bar | undefined;
}

function gapBefore(
  { grid }: SongDocument,
  barIndex: number,
  side: 'before' | 'behind',
  durationS: number,
): Gap {
  const [before, behind] = [grid.bars[barIndex - 1], grid.bars[barIndex]];
  const from = before ? before.beat + before.beats : 0;
  return {
    from,
    to: behind ? behind.beat : null,
    fromS: before ? timeAtBeat(grid, from) : 0,
    toS: behind ? timeAtBeat(grid, behind.beat) : durationS,
    like: side === 'before' ? before : behind,
  };
}

/** Why the gap before a bar can't be filled from a side; null when it can. `barIndex` = number of bars for the end. */
export function whyNotFill(
  document: SongDocument,
  barIndex: number,
  side: 'before' | 'behind',
  durationS: number,
): Refusal | null {
  const { like, fromS, toS } = gapBefore(document, barIndex, side, durationS);
  if (!like) return { kind: 'no-bars-on-side', side };
  return toS - fromS < beatOf(document.grid, like) / 2 ? { kind: 'no-gap-here' } : null;
}

/** Length of a beat in a bar, in seconds. */
function beatOf(grid: BeatGrid, { beat, beats }: Bar): number {
  return (timeAtBeat(grid, beat + beats) - timeAtBeat(grid, beat)) / beats;
}

/**
 * Fills the gap before a bar with beats and bars as they are on one side of it: as many as are nearest to that tempo, spread evenly.
 * Before the first bar and behind the last they keep the tempo, as far as the recording goes.
 */
export function fillGap(
  document: SongDocument,
  barIndex: number,
  side: 'before' | 'behind',
  durationS: number,
): SongDocument {
  if (whyNotFill(document, barIndex, side, durationS) !== null) return document;
  const { beatsS, bars } = document.grid;
  const { from, to, fromS, toS, like } = gapBefore(document, barIndex, side, durationS);
  const periodS = beatOf(document.grid, like!);
  const isOpen = barIndex === 0 || to === null;
  const fitting = (toS - fromS) / periodS;
  const count = isOpen ? Math.floor(fitting + 1e-6) : Math.max(1, Math.round(fitting));
  if (count > COUNT_LIMITS.beats) return document;
  const stepS = isOpen ? periodS : (toS - fromS) / count;
  const startS = barIndex === 0 ? toS - count * stepS : fromS;
  const put = Array.from({ length: count }, (_, i) => startS + i * stepS);
  const behind = to === null ? [startS + count * stepS] : beatsS.slice(to);
  const filled = barIndex === 0 ? barsOver(0, count, like!) : barsOfMeter(from, from + count, like!);
  const inOrder = side === 'behind' ? barsOver(from, from + count, like!) : filled;
  const by = from + count - (to ?? 0);
  const grid = {
    beatsS: [...beatsS.slice(0, from), ...put, ...behind],
    bars: [
      ...bars.slice(0, barIndex),
      ...inOrder,
      ...bars.slice(barIndex).map((b) => ({ ...b, beat: b.beat + by })),
    ],
  };
  return isFittingGrid(grid) ? withBars(document, grid, barIndex) : document;
}

/** Why there is no pick-up of so many beats; null when there can be. */
export function whyNotPickUp({ grid: { bars } }: SongDocument, beats: number): Refusal | null {
  const [first, second] = bars;
  if (!first) return { kind: 'no-beats' };
  if (second && first.beats < second.beats) return { kind: 'has-pick-up', beats: first.beats };
  if (beats < 1 || beats >= first.beats) return { kind: 'pick-up-beats', beats: first.beats - 1 };
  return first.beat >= beats ? null : { kind: 'too-few-beats-before' };
}

/** A short bar before the first, for what is played before the one. */
export function addPickUp(document: SongDocument, beats: number): SongDocument {
  if (whyNotPickUp(document, beats) !== null) return document;
  const { beatsS, bars } = document.grid;
  const [first] = bars;
  return {
    ...document,
    grid: { beatsS, bars: [{ beat: first.beat - beats, beats, unit: first.unit }, ...bars] },
    sections: document.sections.map((s) => ({ ...s, startBar: s.startBar + 1 })),
  };
}
