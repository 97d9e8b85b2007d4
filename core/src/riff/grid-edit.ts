/**
 * The beat grid corrected by hand. What is written keeps its place: in the sound, unless a change says that it keeps its
 * place in the bar. Each change returns the same document where it can't be made; `whyNot` functions say why.
 */
import { fitLine } from '../units';
import type { Bar, BeatGrid, Riff, Section, SongDocument, Strum, Variation } from './document';
import type { Unit } from './enums';
import { barTimesS, nearestBarLine, riffTicks, ticksPerBeat } from './grid';
import { COUNT_LIMITS, isWithin, RANGES } from './limits';
import type { Refusal } from './refusal';
import { withoutFirstPasses } from './section-edit';
import { withVariation } from './variation';

function scaleTicks(strums: readonly Strum[], factor: number): Strum[] {
  const placed = strums.map((s) => ({
    ...s,
    startTicks: Math.round(s.startTicks * factor),
    durationTicks: Math.max(1, Math.round(s.durationTicks * factor)),
  }));
  // Halving may put two strums on one tick: the later one gives way by a tick, nothing is lost.
  for (let k = 1; k < placed.length; k++) {
    const earliest = placed[k - 1].startTicks + 1;
    if (placed[k].startTicks < earliest) placed[k] = { ...placed[k], startTicks: earliest };
  }
  return placed;
}

/** A riff written in bars that are twice as many (factor 2) or half as many. */
function scaleRiff(riff: Riff, factor: 2 | 0.5, bars: Riff['bars']): Riff {
  return {
    ...riff,
    bars,
    strums: scaleTicks(riff.strums, factor),
    guitar2: scaleTicks(riff.guitar2, factor),
    variations: riff.variations.map((v) => ({
      ...v,
      fromTicks: Math.floor(v.fromTicks * factor),
      toTicks: Math.ceil(v.toTicks * factor),
      strums: scaleTicks(v.strums, factor),
      guitar2: scaleTicks(v.guitar2, factor),
    })),
    barNotes: riff.barNotes.map((n) => ({ ...n, bar: Math.floor(n.bar * factor) })),
    groups: riff.groups.map((g) => ({
      ...g,
      startBar: Math.floor(g.startBar * factor),
      bars: Math.max(1, Math.floor(g.bars * factor)),
    })),
  };
}

/** Twice as many beats and bars: what was heard as one bar are two. */
export function doubleTempo(document: SongDocument): SongDocument {
  const { beatsS, bars } = document.grid;
  const isTooLong =
    2 * beatsS.length > COUNT_LIMITS.beats ||
    2 * bars.length > COUNT_LIMITS.bars ||
    document.riffs.some((r) => 2 * r.bars.length > COUNT_LIMITS.barsOfRiff);
  if (beatsS.length < 2 || isTooLong) return document;
  const doubled = beatsS.flatMap((t, i) => {
    const next = beatsS[i + 1] ?? 2 * t - beatsS[i - 1];
    return [t, (t + next) / 2];
  });
  return {
    ...document,
    grid: {
      beatsS: doubled,
      bars: bars.flatMap(({ beat, beats, unit }): Bar[] => [
        { beat: 2 * beat, beats, unit },
        { beat: 2 * beat + beats, beats, unit },
      ]),
    },
    riffs: document.riffs.map((riff) =>
      scaleRiff(
        riff,
        2,
        riff.bars.flatMap((bar) => [bar, bar]),
      ),
    ),
    sections: document.sections.map((s) => ({ ...s, startBar: 2 * s.startBar })),
  };
}

/** Bars two by two, from the first that a section begins on; a last one without a partner is left out. */
function pairsOf({ grid: { bars }, sections }: SongDocument): (readonly [Bar, Bar])[] {
  const pairs: (readonly [Bar, Bar])[] = [];
  for (let i = (sections[0]?.startBar ?? 0) % 2; i + 1 < bars.length; i += 2)
    pairs.push([bars[i], bars[i + 1]]);
  return pairs;
}

/** Why {@link halveTempo} can't be done; null when it can. */
export function whyNotHalve(document: SongDocument): Refusal | null {
  const { riffs, sections } = document;
  const pairs = pairsOf(document);
  if (pairs.length === 0) return { kind: 'too-few-bars' };
  const odd = riffs.find((r) => r.bars.length % 2 === 1);
  if (odd) return { kind: 'odd-bars', letter: odd.letter };
  const first = sections[0]?.startBar ?? 0;
  const apart = sections.find((s) => (s.startBar - first) % 2 !== 0);
  if (apart) return { kind: 'starts-inside-bar', section: apart.name };
  const parity = pairs[0][0].beat % 2;
  const last = document.grid.bars.at(-1);
  const uneven = pairs.find(([a, b]) => {
    const isCut = b === last && b.beats < a.beats;
    return (
      (a.beat - parity) % 2 !== 0 ||
      (a.beats !== b.beats && !isCut) ||
      a.unit !== b.unit ||
      b.beat !== a.beat + a.beats
    );
  });
  const bar = uneven && document.grid.bars.indexOf(uneven[0]) + 1;
  return bar ? { kind: 'uneven-bars', bar } : null;
}

/** Half as many beats and bars: two bars become one. A recording may end within a bar: then the last of the longer ones is cut too. */
export function halveTempo(document: SongDocument): SongDocument {
  if (whyNotHalve(document) !== null) return document;
  const pairs = pairsOf(document);
  const parity = pairs[0][0].beat % 2;
  const skipped = (document.sections[0]?.startBar ?? 0) % 2;
  return {
    ...document,
    grid: {
      beatsS: document.grid.beatsS.filter((_, i) => i % 2 === parity),
      bars: pairs.map(([{ beat, beats, unit }, next]) => ({
        beat: (beat - parity) / 2,
        beats: Math.floor((beats + next.beats) / 2),
        unit,
      })),
    },
    riffs: document.riffs.map((riff) =>
      scaleRiff(
        riff,
        0.5,
        riff.bars.filter((_, i) => i % 2 === 0),
      ),
    ),
    sections: document.sections.map((s) => ({ ...s, startBar: (s.startBar - skipped) / 2 })),
  };
}

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

/** Strums of the riff that become a variation's own need ids of their own. */
function renamed(strums: readonly Strum[], { id, strums: own, guitar2 }: Variation): Strum[] {
  const owned = new Set([...own, ...guitar2].map((s) => s.id));
  return strums.map((s) => (owned.has(s.id) ? s : { ...s, id: `${id}/${s.id}`.slice(-80) }));
}

/**
 * Every bar line a number of beats later (earlier when negative). `keeps` 'sound': strums stay where they sound and turn
 * within their riff, since it comes round again; 'bar': they move along with the bar lines.
 */
export function moveDownbeat(
  document: SongDocument,
  beats: number,
  keeps: 'sound' | 'bar' = 'sound',
): SongDocument {
  const { beatsS, bars } = document.grid;
  const moved = bars.map((bar) => ({ ...bar, beat: bar.beat + beats }));
  const inside = (bar: Bar): boolean => bar.beat >= 0 && bar.beat + bar.beats <= beatsS.length;
  const dropped = moved.findIndex(inside);
  if (beats === 0 || dropped < 0) return document;
  const kept = moved.filter(inside);
  const sections = document.sections.map((before): Section => {
    const length = document.riffs.find((r) => r.id === before.riffId)?.bars.length ?? 1;
    // A pass that has lost its first bars goes; the only one of a section stays.
    const lost = Math.min(before.passes - 1, Math.ceil(Math.max(0, dropped - before.startBar) / length));
    const section = withoutFirstPasses(before, lost, length);
    const startBar = Math.max(0, section.startBar - dropped);
    const passes = Math.min(section.passes, Math.floor((kept.length - startBar) / length));
    // The last pass may hang over the end of the last bar by a beat: it is kept as long as one bar of it is there.
    return { ...section, startBar, passes: Math.max(1, passes) };
  });
  const turn = (riff: Riff): Riff => turned(riff, -beats * ticksPerBeat(riff.bars[0]?.unit ?? 4));
  return {
    ...document,
    grid: { beatsS, bars: kept },
    riffs: keeps === 'sound' ? document.riffs.map(turn) : document.riffs,
    sections,
  };
}

/** Beats nearer to each other than this can't be told apart. */
const LEAST_BEAT_S = 0.1;

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

/** Gives one bar another number of beats; the bars behind it begin earlier or later. */
export function setBarBeats(document: SongDocument, barIndex: number, beats: number): SongDocument {
  const { beatsS, bars } = document.grid;
  const bar = bars[barIndex];
  if (!bar || !isWithin(beats, RANGES.beats) || beats === bar.beats) return document;
  const by = beats - bar.beats;
  const changed = bars.map((b, i) =>
    i < barIndex ? b : i === barIndex ? { ...b, beats } : { ...b, beat: b.beat + by },
  );
  return { ...document, grid: { beatsS, bars: changed.filter((b) => b.beat + b.beats <= beatsS.length) } };
}

/** Why the bars [from, from + count) can't become free time; null when they can. */
export function whyNotFree(
  { grid, sections, riffs }: SongDocument,
  from: number,
  count: number,
): Refusal | null {
  if (count < 1 || from < 0 || from + count > grid.bars.length) return { kind: 'no-bars-here' };
  const playing = sections.find((s) => {
    const bars = s.passes * (riffs.find((r) => r.id === s.riffId)?.bars.length ?? 1);
    return s.startBar < from + count && s.startBar + bars > from;
  });
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

/** Puts bars back over free time before a bar, in the meter of that bar, as many as fit behind the bar before. */
export function barsBefore(document: SongDocument, barIndex: number): SongDocument {
  const { beatsS, bars } = document.grid;
  const [before, bar] = [bars[barIndex - 1], bars[barIndex]];
  if (!bar) return document;
  const free = bar.beat - (before ? before.beat + before.beats : 0);
  const count = Math.floor(free / bar.beats);
  if (count < 1 || bars.length + count > COUNT_LIMITS.bars) return document;
  const put = Array.from({ length: count }, (_, i): Bar => ({
    ...bar,
    beat: bar.beat - (count - i) * bar.beats,
  }));
  return {
    ...document,
    grid: { beatsS, bars: [...bars.slice(0, barIndex), ...put, ...bars.slice(barIndex)] },
    sections: document.sections.map((s) =>
      s.startBar >= barIndex ? { ...s, startBar: s.startBar + count } : s,
    ),
  };
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

/** Fewer taps say nothing about a tempo. */
const FEWEST_TAPS = 4;

/**
 * A grid tapped along with the recording: the first tap is a one. Steady taps become even beats by least squares, so that
 * the scatter of the hand does not stay in them. Null for fewer than four taps. The part before the first tap gets beats too.
 */
export function gridFromTaps(
  tapsS: readonly number[],
  beatsPerBar: number,
  durationS: number,
  unit: Unit = 4,
): BeatGrid | null {
  if (tapsS.length < FEWEST_TAPS) return null;
  const { slope: period, at } = fitLine(tapsS);
  if (!(period >= LEAST_BEAT_S) || durationS / period > COUNT_LIMITS.beats) return null;
  const first = at(0);
  const barsBefore = Math.floor(first / (period * beatsPerBar));
  const start = first - barsBefore * beatsPerBar * period;
  const beats = Math.max(beatsPerBar + 1, Math.floor((durationS - start) / period) + 1);
  return {
    beatsS: Array.from({ length: beats }, (_, i) => start + i * period),
    bars: Array.from({ length: Math.floor((beats - 1) / beatsPerBar) }, (_, i) => ({
      beat: i * beatsPerBar,
      beats: beatsPerBar,
      unit,
    })),
  };
}

/** Another grid for the same song: sections stay at their times, at the nearest bar, as far as there are bars. */
export function replaceGrid(document: SongDocument, grid: BeatGrid): SongDocument {
  const before = barTimesS(document.grid);
  const { beats, bars } = COUNT_LIMITS;
  const isFitting = grid.bars.length > 0 && grid.bars.length <= bars && grid.beatsS.length <= beats;
  if (!isFitting || !grid.beatsS.every((t) => isWithin(t, RANGES.timeS))) return document;
  const sections = document.sections.map((section) => {
    const nearest = nearestBarLine(grid, before[section.startBar] ?? 0);
    return { ...section, startBar: Math.min(nearest, grid.bars.length - 1) };
  });
  return { ...document, grid, sections };
}
