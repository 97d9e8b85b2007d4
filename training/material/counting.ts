/**
 * How people count: tempi as listeners feel them, drums that say where two and four are, riffs that strike beats more often than what lies
 * between them. The songs that the meter is learned from keep to it; in all others tempo and drums are drawn freely, so that what one of them
 * calls a beat may be a half or a double to everybody who hears it. All of this is common practice of the trade.
 */
import type { Chance } from './chance';

interface Meter {
  readonly beats: number;
  readonly unit: number;
}

/** Sixteenths of a bar that kick, snare and what keeps the time fall on, thirds of a beat among them. */
export interface Beat {
  readonly kicks: readonly number[];
  readonly snares: readonly number[];
  readonly keeps?: readonly number[];
}

/**
 * Beats that are felt gather around 120 a minute (Moelants 2002, "Preferred tempo reconsidered", ICMPC 7; from memory), those of 6/8 are
 * dotted and slower.
 */
const FELT = { middle: 120, octaves: 0.42, lowest: 66, highest: 200 };
const FELT_IN_TWO = { middle: 66, octaves: 0.3, lowest: 44, highest: 96 };
/** From here on a snare between the beats is played as a fast two-beat and counted in the slower one. */
const TWO_BEAT_BPM = 140;

export const isInTwo = ({ beats, unit }: Meter): boolean => beats === 6 && unit === 8;
const isInThree = ({ beats, unit }: Meter): boolean => beats === 3 && unit === 4;

/** Quarters a minute. */
export function drawFeltTempo(chance: Chance, meter: Meter): number {
  const { middle, octaves, lowest, highest } = isInTwo(meter) ? FELT_IN_TWO : FELT;
  for (;;) {
    const felt = middle * 2 ** chance.normal(0, octaves);
    if (felt >= lowest && felt <= highest) return isInTwo(meter) ? 1.5 * felt : felt;
  }
}

/** Share of a riff's density at a place, in quarters from the start of a bar: most on the one, then on beats, then on halves of them. */
export function strikingAt(meter: Meter, quarter: number): number {
  const beat = isInTwo(meter) ? 1.5 : 1;
  const inBar = quarter % ((4 * meter.beats) / meter.unit);
  const inBeat = (inBar / beat) % 1;
  if (inBar === 0) return 1.6;
  if (inBeat < 1e-6) return 1.35;
  return Math.abs(inBeat - 0.5) < 1e-6 ? 0.95 : 0.75;
}

/**
 * Lengths in places of the grid that come round and round through a bar, by places per quarter and in six eighths: straight, galloping, pushed
 * (common practice).
 */
const CELLS: Readonly<Record<number, readonly (readonly number[])[]>> = {
  1: [[1], [2, 1, 1]],
  2: [[1], [1], [2], [2, 1, 1], [3, 3, 2], [2, 1], [3, 1], [1, 1, 2]],
  3: [[2, 1], [1], [3, 2, 1]],
  4: [[2, 1, 1], [2, 1, 1], [1, 1, 2], [3, 3, 2], [1], [4, 2, 1, 1], [2, 2, 1, 1, 2], [3, 1]],
};
const CELLS_IN_TWO: typeof CELLS = {
  2: [[1], [2, 1], [3], [2, 1, 1, 1, 1]],
  4: [[2, 1, 1, 2], [2, 2, 1, 1], [2], [4, 2], [3, 1, 2]],
};
/** Without what halves a bar of three quarters: that is counted as six eighths. */
const CELLS_IN_THREE: typeof CELLS = {
  ...CELLS,
  1: [[1], [1], [2, 1]],
  2: [[1], [2], [2], [2, 1, 1], [2, 2, 1, 1], [4, 1, 1], [1, 1, 2]],
};
/** Of the riffs, those that have one. */
const WITH_CELL = 0.6;

/** Places of a bar that are struck by a rhythm that goes round in it; null for a riff that has none. `grid`: places per quarter. */
export function drawCell(chance: Chance, meter: Meter, grid: number): ReadonlySet<number> | null {
  if (!chance.yes(WITH_CELL)) return null;
  const cells = isInTwo(meter) ? CELLS_IN_TWO : isInThree(meter) ? CELLS_IN_THREE : CELLS;
  const cell = chance.pick(cells[grid]);
  const struck = new Set<number>();
  const places = (4 * grid * meter.beats) / meter.unit;
  for (let place = 0, i = 0; place < places; place += cell[i++ % cell.length]) struck.add(place);
  return struck;
}

/** Places per quarter that the riffs of a song use: sixteenths where there is time for them, in slow songs as often as not. */
export function drawGrid(chance: Chance, meter: Meter, bpm: number): number {
  const sixteenths = bpm < 115 ? 7 : bpm < 150 ? 3 : 0.5;
  if (meter.unit === 8)
    return chance.weighted([
      [2, 6],
      [4, isInTwo(meter) ? sixteenths / 2 : 0],
    ] as const);
  return chance.weighted([
    [2, 6],
    [4, sixteenths],
    [3, 1.5],
    [1, 2],
  ] as const);
}

type Feel = 'backbeat' | 'four' | 'two-beat' | 'halved';

/** How a whole song is drummed, but for the parts that are {@link drawPartFeel} otherwise. */
export function drawFeel(chance: Chance, bpm: number): Feel {
  return chance.weighted([
    ['backbeat', 6],
    ['four', 1.5],
    ['two-beat', bpm > TWO_BEAT_BPM ? 2 : 0],
    // Counted twice as slow, it would be slower than anybody counts.
    ['halved', bpm < 1.6 * FELT.lowest ? 1.5 : 0],
  ] as const);
}

export function drawPartFeel(chance: Chance, main: Feel): Feel {
  return chance.weighted([
    [main, 8],
    ['halved', 1.2],
    ['four', 0.8],
  ] as const);
}

export const everySixteenth = (step: number, sixteenths: number, from = 0): number[] =>
  Array.from({ length: Math.ceil((sixteenths - from) / step) }, (_, i) => from + i * step);

/** Sixteenths between two strokes of what keeps the time. */
const KEEPER_STEPS = [
  [2, 6],
  [4, 4],
  [1, 1],
] as const;

/** One bar of drums, played through a part. */
export function drawCountedBeat(chance: Chance, meter: Meter, feel: Feel, inTriplets: boolean): Beat {
  const sixteenths = (meter.beats * 16) / meter.unit;
  const extra = (p: number): number[] => everySixteenth(2, sixteenths).filter(() => chance.yes(p));
  if (isInTwo(meter)) {
    const kicks = [0, ...(chance.yes(0.6) ? [chance.pick([4, 8, 10])] : []), ...extra(0.08)];
    return { kicks, snares: [6], keeps: everySixteenth(chance.pick([2, 2, 2, 6]), sixteenths) };
  }
  const quarters = everySixteenth(4, sixteenths);
  const keeps = inTriplets
    ? quarters.flatMap((q) => (chance.yes(0.8) ? [q, q + 8 / 3] : [q]))
    : everySixteenth(chance.weighted(KEEPER_STEPS), sixteenths);
  const swung = inTriplets ? quarters.map((q) => q + 8 / 3).filter(() => chance.yes(0.25)) : extra(0.2);
  if (isInThree(meter)) {
    const pushed = chance.yes(0.35) && !inTriplets ? [chance.pick([2, 6, 6, 10])] : [];
    const kicks = feel === 'four' ? quarters : [0, ...pushed, ...swung];
    return { kicks, snares: chance.pick([[4, 8], [4, 8], [8], [4]]), keeps };
  }
  if (meter.beats === 7)
    return {
      kicks: [0, chance.pick([8, 10]), ...extra(0.1)],
      snares: chance.pick([[4, 12], [4, 10], [8]]),
      keeps,
    };
  if (meter.beats === 5)
    return {
      kicks: [0, ...extra(0.15)],
      snares: chance.pick([
        [4, 12],
        [8, 16],
        [4, 16],
      ]),
      keeps,
    };
  const backbeat = quarters.filter((q) => q % 8 === 4);
  switch (feel) {
    case 'backbeat': {
      const rolling = chance.yes(0.12) && !inTriplets;
      const kicks = rolling
        ? everySixteenth(chance.pick([1, 2]), sixteenths)
        : [0, ...(chance.yes(0.8) ? [8] : []), ...swung];
      return { kicks, snares: backbeat, keeps };
    }
    case 'four':
      return { kicks: quarters, snares: chance.pick([backbeat, backbeat, [12], []]), keeps };
    case 'two-beat':
      return { kicks: quarters, snares: everySixteenth(4, sixteenths, 2), keeps: quarters };
    case 'halved':
      return { kicks: [0, ...swung], snares: [8], keeps };
  }
}
