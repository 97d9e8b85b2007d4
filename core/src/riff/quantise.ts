/** From where strums were struck to the places that they are written on: sixteenths, and triplets where they fit clearly better. */
import { TICKS_PER_QUARTER, type Ticks } from '../units';

export const SIXTEENTH: Ticks = TICKS_PER_QUARTER / 4;
const TRIPLET: Ticks = TICKS_PER_QUARTER / 3;
/** Triplets must fit this much better before a beat is read as one. */
const TRIPLET_ADVANTAGE = 0.6;

function beatOf(ticks: number): number {
  return Math.floor((ticks + SIXTEENTH / 2) / TICKS_PER_QUARTER);
}

/** Nearest places of the grid; the strokes of a beat are read as sixteenths or as triplets together. */
export function quantise(ticks: readonly number[]): Ticks[] {
  const byBeat = new Map<number, number[]>();
  for (const t of ticks) byBeat.set(beatOf(t), [...(byBeat.get(beatOf(t)) ?? []), t]);
  const stepOf = (members: readonly number[]): Ticks => {
    const miss = (step: Ticks): number =>
      members.reduce((sum, t) => sum + Math.abs(t - Math.round(t / step) * step), 0);
    const isTriplet = members.length > 1 && miss(TRIPLET) < TRIPLET_ADVANTAGE * miss(SIXTEENTH);
    return isTriplet ? TRIPLET : SIXTEENTH;
  };
  const steps = new Map([...byBeat].map(([beat, members]) => [beat, stepOf(members)]));
  return ticks.map((t) => {
    const step = steps.get(beatOf(t)) ?? SIXTEENTH;
    return Math.round(t / step) * step;
  });
}
