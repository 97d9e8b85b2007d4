/**
 * Passages in free time: from one strum to the next there is no whole number of steps of the pulse that the rest of the
 * song keeps, and nothing else keeps it either, so that the tracked pulse bends to whatever sounds.
 */
import { fitLine } from '../../units';
import type { MeterStrum } from './meter';
import type { Pulse } from './pulse';
import type { TimeSpan } from './stretches';

const WINDOW_S = 8;
const STEP_S = 1;
/** Fewer strums say too little about time. */
const STRUMS_IN_WINDOW = 5;
/** What players divide a pulse into. */
const PARTS = [1, 2, 3];
/** Steps finer than this are met by chance as well as by intent, s: sixteenths at 210 bpm. */
const FINEST_STEP_S = 0.07;
/** Mean distance of gaps to whole steps against that of gaps at random (1); between those and what is played in time. */
const FREE_FROM = 0.62;
/** Shorter passages are a ritardando or a fill. */
const SHORTEST_S = 6;
/** Where somebody keeps time the tracked pulse stays this near to a stiff one, as a share of its period (RMS). */
const KEPT_BEND = 0.04;

/** How far these instants bend from the line through them by least squares: RMS, as a share of its period. */
function bendOf(timesS: readonly number[]): number {
  const { slope: periodS, at } = fitLine(timesS);
  const squares = timesS.reduce((sum, t, i) => sum + (t - at(i)) ** 2, 0);
  return Math.sqrt(squares / timesS.length) / periodS;
}

/** Mean distance of lengths of time to whole numbers of steps, as a share of what chance would give. */
function looseness(lengthsS: readonly number[], stepS: number): number {
  const sum = lengthsS.reduce((total, s) => total + Math.abs(s / stepS - Math.round(s / stepS)), 0);
  // Uniform distances to the nearest of whole numbers are a quarter on average.
  return sum / lengthsS.length / 0.25;
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
    if (bendOf(pulses) < KEPT_BEND) continue;
    // A pulse that drifts or slipped is against all strums; from one to the next they tell whether anybody counts.
    const gaps = inside.slice(1).map((t, i) => t - inside[i]);
    const steps = PARTS.map((parts) => periodS / parts).filter(
      (stepS, i) => i === 0 || stepS >= FINEST_STEP_S,
    );
    if (Math.min(...steps.map((stepS) => looseness(gaps, stepS))) < FREE_FROM) continue;
    const last = spans.at(-1);
    const [startS, endS] = [inside[0], inside[inside.length - 1]];
    if (last && startS <= last.endS) last.endS = Math.max(last.endS, endS);
    else spans.push({ startS, endS });
  }
  return spans.filter(({ startS, endS }) => endS - startS >= SHORTEST_S);
}
