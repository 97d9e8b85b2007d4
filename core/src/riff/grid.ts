/** The beats of a recording, and the bars of it and of a riff: where a beat lies in time, what is counted there, how fast it goes. */
import { bisectCenter, bisector, bisectRight } from 'd3-array';
import { beatsPerTempoBeat } from '../theory';
import { clamp, TICKS_PER_QUARTER, type Ticks } from '../units';
import type { Bar, BeatGrid, Riff } from './document';
import { COUNT_LIMITS, isWithin, RANGES } from './limits';

/** Beats nearer to each other than this can't be told apart. */
export const LEAST_BEAT_S = 0.1;

export function ticksPerBeat(unit: number): Ticks {
  return (TICKS_PER_QUARTER * 4) / unit;
}

/** Length of a riff. */
export function riffTicks(riff: Riff): Ticks {
  return riff.bars.reduce((sum, { beats, unit }) => sum + beats * ticksPerBeat(unit), 0);
}

/** Instants at which each bar of a riff begins, in ticks from its start. */
export function barStartsTicks(riff: Riff): Ticks[] {
  let at = 0;
  return riff.bars.map(({ beats, unit }) => {
    const start = at;
    at += beats * ticksPerBeat(unit);
    return start;
  });
}

/** Time of a place between beats; before the first and after the last beat the nearest beat period goes on. */
export function timeAtBeat({ beatsS }: BeatGrid, beat: number): number {
  if (beatsS.length < 2) return beatsS[0] ?? 0;
  const index = Math.min(beatsS.length - 2, Math.max(0, Math.floor(beat)));
  return beatsS[index] + (beat - index) * (beatsS[index + 1] - beatsS[index]);
}

/** The inverse of {@link timeAtBeat}. */
export function beatAtTime({ beatsS }: BeatGrid, timeS: number): number {
  if (beatsS.length < 2) return 0;
  // Before the first and after the last beat the nearest beat period goes on.
  const beat = clamp(bisectRight(beatsS, timeS) - 1, 0, beatsS.length - 2);
  return beat + (timeS - beatsS[beat]) / (beatsS[beat + 1] - beatsS[beat]);
}

const byBeat = bisector((bar: Bar) => bar.beat);

/** Index of the last bar that has begun at a place between beats; -1 before the first. */
function barIndexAt({ bars }: BeatGrid, beat: number): number {
  return byBeat.right(bars, beat + 1e-6) - 1;
}

/** Index of the beat nearest to a time; 0 without beats. */
export function nearestBeat({ beatsS }: BeatGrid, timeS: number): number {
  return Math.max(0, bisectCenter(beatsS, timeS));
}

/** Index of the bar line nearest to a time, one more than there are bars for the end of the last; 0 without bars. */
export function nearestBarLine(grid: BeatGrid, timeS: number): number {
  return Math.max(0, bisectCenter(barTimesS(grid), timeS));
}

/** Bar (1 = first) and beat (1 = first) at a time, as players count; null where there is no bar. */
export function countAt(grid: BeatGrid, timeS: number): { bar: number; beat: number } | null {
  const beat = beatAtTime(grid, timeS);
  const index = barIndexAt(grid, beat);
  if (index < 0) return null;
  const bar = grid.bars[index];
  const beatInBar = Math.floor(beat - bar.beat + 1e-6) + 1;
  // Between bars, in free time, there is nothing to count.
  return beatInBar <= bar.beats ? { bar: index + 1, beat: beatInBar } : null;
}

/** Start of each bar in seconds, and the end of the last. */
export function barTimesS(grid: BeatGrid): number[] {
  const starts = grid.bars.map(({ beat }) => timeAtBeat(grid, beat));
  const last = grid.bars.at(-1);
  return last ? [...starts, timeAtBeat(grid, last.beat + last.beats)] : [];
}

/** Length of a beat around a time, in seconds; null without beats. */
export function beatPeriodAt(grid: BeatGrid, timeS: number): number | null {
  if (grid.beatsS.length < 2) return null;
  const index = Math.min(grid.beatsS.length - 2, Math.max(0, Math.floor(beatAtTime(grid, timeS))));
  // Averaged over up to four beats: single beats carry the tracker's jitter.
  const from = Math.max(0, index - 1);
  const to = Math.min(grid.beatsS.length - 1, index + 3);
  return (grid.beatsS[to] - grid.beatsS[from]) / (to - from);
}

/** The bar at a time, for its meter: a pick-up or a bar that is cut off at the end has that of its neighbour. */
function wholeBarAt(grid: BeatGrid, timeS: number): Bar | undefined {
  const { bars } = grid;
  const index = Math.max(0, barIndexAt(grid, beatAtTime(grid, timeS)));
  const bar = bars.at(index);
  const neighbour = bars.at(index === 0 ? 1 : index === bars.length - 1 ? index - 1 : index);
  if (!bar || !neighbour) return bar;
  return neighbour.unit === bar.unit && neighbour.beats > bar.beats ? neighbour : bar;
}

/** Beats per minute around a time, as they are counted: dotted quarters in 6/8. Null without beats. */
export function tempoAt(grid: BeatGrid, timeS: number): number | null {
  const periodS = beatPeriodAt(grid, timeS);
  if (periodS === null) return null;
  const bar = wholeBarAt(grid, timeS);
  return 60 / (periodS * (bar ? beatsPerTempoBeat(bar) : 1));
}

/** The meter that most bars have. */
function commonestBar(bars: readonly Bar[]): Bar | undefined {
  const counts = new Map<string, number>();
  const nameOf = ({ beats, unit }: Bar): string => `${beats}/${unit}`;
  for (const bar of bars) counts.set(nameOf(bar), (counts.get(nameOf(bar)) ?? 0) + 1);
  const most = Math.max(...counts.values());
  return bars.find((bar) => counts.get(nameOf(bar)) === most);
}

/** Beats per minute over the whole song, counted as most of its bars are; null without beats. */
export function overallTempo({ beatsS, bars }: BeatGrid): number | null {
  if (beatsS.length < 2) return null;
  const periodS = (beatsS[beatsS.length - 1] - beatsS[0]) / (beatsS.length - 1);
  const bar = commonestBar(bars);
  return 60 / (periodS * (bar ? beatsPerTempoBeat(bar) : 1));
}

/** Whether a document takes a grid: bars on it, beats in order within the limits. */
export function isFittingGrid({ beatsS, bars }: BeatGrid): boolean {
  const isSmall = beatsS.length <= COUNT_LIMITS.beats && bars.length <= COUNT_LIMITS.bars;
  return (
    isSmall &&
    bars.length > 0 &&
    beatsS.every((t, i) => isWithin(t, RANGES.timeS) && (i === 0 || t > beatsS[i - 1]))
  );
}

/** Bars of one meter over beats [from, to); one that does not fit whole is the last. */
export function barsOfMeter(from: number, to: number, { beats, unit }: Omit<Bar, 'beat'>): Bar[] {
  const bars: Bar[] = [];
  for (let beat = from; beat < to; beat += beats)
    bars.push({ beat, beats: Math.min(beats, to - beat), unit });
  return bars;
}
