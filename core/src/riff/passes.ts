/**
 * The two clocks: ticks of a riff and seconds of the recording. This is the only place that converts
 * between them; a pass of a riff lies on the beats it is played on, so drift is followed beat by beat.
 */
import type { Ticks } from '../units';
import type { BeatGrid, Riff, RiffBar, Section } from './document';
import { beatAtTime, ticksPerBeat, timeAtBeat } from './grid';
import { playedPart } from './section-span';

/** One of the times that a section plays its riff. */
export interface Pass {
  readonly sectionId: string;
  readonly riffId: string;
  readonly transpose: number;
  /** 0 for the first pass of the section. */
  readonly index: number;
  /** Index into the grid's bars. */
  readonly startBar: number;
  readonly bars: number;
  readonly startBeat: number;
  readonly beats: number;
  /** The part of the riff that it plays. */
  readonly fromTicks: Ticks;
  readonly toTicks: Ticks;
  readonly startS: number;
  readonly endS: number;
}

const ticksOf = ({ beats, unit }: RiffBar): Ticks => beats * ticksPerBeat(unit);

/** Where bars begin, the recording may begin within one: of the riff's bar its end is played. */
function missingAtStart({ bars }: BeatGrid, index: number, played: RiffBar): Ticks {
  const [before, bar, next] = [bars[index - 1], bars[index], bars[index + 1]];
  const begins = !before || before.beat + before.beats < bar.beat;
  const isShort = ticksOf(bar) < ticksOf(played) && next?.beat === bar.beat + bar.beats;
  return begins && isShort ? ticksOf(played) - ticksOf(bar) : 0;
}

/** Where bars end, the recording may end within one. */
function missingAtEnd({ bars }: BeatGrid, index: number, played: RiffBar): Ticks {
  const [bar, next] = [bars[index], bars[index + 1]];
  const ends = !next || bar.beat + bar.beats < next.beat;
  return ends ? Math.max(0, ticksOf(played) - ticksOf(bar)) : 0;
}

/**
 * The passes of a section in order, each on the beats of the recording that it is played on. Those that the recording has no bars for
 * are left out.
 */
export function passesOf(section: Section, riff: Riff, grid: BeatGrid): Pass[] {
  const passes: Pass[] = [];
  let startBar = section.startBar;
  for (let index = 0; index < section.passes; index++) {
    const part = playedPart(riff, section, index);
    const { fromBar, bars } = part;
    const first = grid.bars[startBar];
    const last = grid.bars[startBar + bars - 1];
    if (!first || !last) break;
    const fromTicks = part.fromTicks + missingAtStart(grid, startBar, riff.bars[fromBar]);
    const toTicks = part.toTicks - missingAtEnd(grid, startBar + bars - 1, riff.bars[fromBar + bars - 1]);
    const beats = last.beat + last.beats - first.beat;
    passes.push({
      sectionId: section.id,
      riffId: riff.id,
      transpose: section.transpose,
      index,
      startBar,
      bars,
      startBeat: first.beat,
      beats,
      fromTicks,
      toTicks,
      startS: timeAtBeat(grid, first.beat),
      endS: timeAtBeat(grid, first.beat + beats),
    });
    startBar += bars;
  }
  return passes;
}

/** When a tick of the riff sounds in this pass. */
export function passTicksToSeconds(pass: Pass, grid: BeatGrid, ticks: Ticks): number {
  const { startBeat, beats, fromTicks, toTicks } = pass;
  return timeAtBeat(grid, startBeat + ((ticks - fromTicks) / (toTicks - fromTicks)) * beats);
}

/** The inverse; not rounded, and outside of the riff for times outside of the pass. */
export function secondsToPassTicks(pass: Pass, grid: BeatGrid, timeS: number): number {
  const { startBeat, beats, fromTicks, toTicks } = pass;
  return fromTicks + ((beatAtTime(grid, timeS) - startBeat) / beats) * (toTicks - fromTicks);
}
