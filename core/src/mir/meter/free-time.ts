/**
 * Passages in free time: strums there stand anywhere against the pulse that the rest of the song keeps, and nothing
 * else keeps it either, so that the tracked pulse bends to whatever sounds. A stiff pulse is laid through each window
 * (linear regression over the tracked one); strums and tracked pulse are measured against it.
 */
import { fitLine } from '../../units';
import type { MeterStrum } from './meter';
import type { Pulse } from './pulse';
import type { TimeSpan } from './stretches';

const WINDOW_S = 8;
const STEP_S = 1;
/** Fewer strums say too little about time. */
const STRUMS_IN_WINDOW = 5;
/** Grids finer than this are met by chance as well as by intent, s. */
const FINEST_GRID_S = 0.11;
/** Mean distance to the grid against that of strums at random (1); players keep under 0.4. */
const FREE_FROM = 0.62;
/** Shorter passages are a ritardando or a fill. */
const SHORTEST_S = 6;
/** Where somebody keeps time the tracked pulse stays this near to a stiff one, as a share of its period (RMS). */
const KEPT_BEND = 0.04;

/** Start and period of the line through these instants by least squares, and how far they bend from it (RMS). */
function stiffPulse(timesS: readonly number[]): { startS: number; periodS: number; bend: number } {
  const { slope: periodS, at } = fitLine(timesS);
  const startS = at(0);
  const squares = timesS.reduce((sum, t, i) => sum + (t - at(i)) ** 2, 0);
  return { startS, periodS, bend: Math.sqrt(squares / timesS.length) / periodS };
}

/** Mean distance of instants to a grid, as a share of what chance would give. */
function looseness(timesS: readonly number[], startS: number, stepS: number): number {
  const sum = timesS.reduce((total, t) => {
    const at = (t - startS) / stepS;
    return total + Math.abs(at - Math.round(at));
  }, 0);
  // Uniform distances to the nearest of whole numbers are a quarter on average.
  return sum / timesS.length / 0.25;
}

/** In order of time; empty for a song that keeps its pulse. */
export function findFreeTime(
  strums: readonly MeterStrum[],
  { timesS, periodS }: Pulse,
  durationS: number,
): TimeSpan[] {
  const spans: { startS: number; endS: number }[] = [];
  let [firstStrum, firstPulse] = [0, 0];
  for (let fromS = 0; fromS < durationS; fromS += STEP_S) {
    while (firstStrum < strums.length && strums[firstStrum].timeS < fromS) firstStrum++;
    while (firstPulse < timesS.length && timesS[firstPulse] < fromS) firstPulse++;
    const inside: number[] = [];
    for (let k = firstStrum; k < strums.length && strums[k].timeS < fromS + WINDOW_S; k++) {
      inside.push(strums[k].timeS);
    }
    const pulses: number[] = [];
    for (let k = firstPulse; k < timesS.length && timesS[k] < fromS + WINDOW_S; k++) pulses.push(timesS[k]);
    if (inside.length < STRUMS_IN_WINDOW || pulses.length < 4) continue;
    const stiff = stiffPulse(pulses);
    if (stiff.bend < KEPT_BEND) continue;
    const grids = [1, 2, 3].filter((parts) => parts === 1 || periodS / parts >= FINEST_GRID_S);
    const least = Math.min(...grids.map((parts) => looseness(inside, stiff.startS, stiff.periodS / parts)));
    if (least < FREE_FROM) continue;
    const last = spans.at(-1);
    const [startS, endS] = [inside[0], inside[inside.length - 1]];
    if (last && startS <= last.endS) last.endS = Math.max(last.endS, endS);
    else spans.push({ startS, endS });
  }
  return spans.filter(({ startS, endS }) => endS - startS >= SHORTEST_S);
}
