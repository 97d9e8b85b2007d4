/** Which whole bars of a riff are on screen: as many as keep its strums apart, and at least one. */
import { barStartsTicks, riffTicks, ticksPerBeat, type Riff } from '@wild-needle/core/riff';

/** Nearer than this, digits of 25 px and their blocks have no room. */
const LEAST_APART_PX = 30;

/** Bars of which the first is `first`, counted from nought. */
export interface BarsInView {
  readonly first: number;
  readonly count: number;
}

/** How many bars in a row may be shown in a lane, wherever in the riff they are. */
export function barsThatFit(riff: Riff, lanePx: number): number {
  const starts = [...barStartsTicks(riff), riffTicks(riff)];
  const apart = riff.strums.slice(1).map((s, i) => s.startTicks - riff.strums[i].startTicks);
  // Counts want room as well where nothing is written yet.
  const least = Math.min(
    ...apart.filter((ticks) => ticks > 0),
    ...riff.bars.map((b) => ticksPerBeat(b.unit)),
  );
  let count = riff.bars.length;
  const longest = (bars: number): number =>
    Math.max(...starts.slice(bars).map((end, first) => end - starts[first]));
  while (count > 1 && (least / longest(count)) * lanePx < LEAST_APART_PX) count--;
  return count;
}

/** The page that a bar is on; the last page is as full as the others. */
export function pageOf(bar: number, count: number, bars: number): number {
  return Math.max(0, Math.min(Math.floor(bar / count) * count, bars - count));
}

/** What the bars in view follow: where the needle is, what is chosen, and how many bars there are room for. */
export interface Followed {
  readonly riffId: string | null;
  readonly bars: number;
  readonly count: number;
  /** Null while the needle is in no pass of the section. */
  readonly needleBar: number | null;
  readonly chosenBar: number | null;
}

/** Bars in view, and whether they were turned to by hand. */
export interface Turned {
  readonly first: number;
  readonly isByHand: boolean;
}

/** They turn when the needle or what is chosen goes out of view; turned by hand they stay until the needle comes by. */
export function follow(
  now: Followed,
  before?: { readonly source: Followed; readonly value: Turned },
): Turned {
  const pageWith = (bar: number | null): Turned => ({
    first: pageOf(bar ?? 0, now.count, now.bars),
    isByHand: false,
  });
  const isOther = before?.source.riffId !== now.riffId || before.source.count !== now.count;
  if (!before || isOther || before.value.first + now.count > now.bars)
    return pageWith(now.chosenBar ?? now.needleBar);
  const { source, value } = before;
  const isShown = (bar: number): boolean => bar >= value.first && bar < value.first + now.count;
  if (now.needleBar !== null && now.needleBar !== source.needleBar) {
    if (isShown(now.needleBar)) return { ...value, isByHand: false };
    if (!value.isByHand) return pageWith(now.needleBar);
  }
  if (now.chosenBar !== null && now.chosenBar !== source.chosenBar && !isShown(now.chosenBar))
    return pageWith(now.chosenBar);
  return value;
}
