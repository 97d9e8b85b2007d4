/**
 * Spans of time as note values: what a stretch of ticks is written as, in wholes down to 64ths with dots and triplets, tied together
 * where one value does not do.
 */
import { TICKS_PER_QUARTER, type Ticks } from '../../units';

/** Names of note values in MusicXML 4.0 (data type note-type-value), longest first, with their lengths. */
const TYPES = [
  ['whole', 4],
  ['half', 2],
  ['quarter', 1],
  ['eighth', 1 / 2],
  ['16th', 1 / 4],
  ['32nd', 1 / 8],
  ['64th', 1 / 16],
] as const;

export interface NoteValue {
  readonly type: (typeof TYPES)[number][0];
  readonly isDotted: boolean;
  /** Three in the time of two. */
  readonly isTriplet: boolean;
  readonly ticks: Ticks;
}

const PLAIN: readonly NoteValue[] = TYPES.flatMap(([type, quarters]) => {
  const ticks = quarters * TICKS_PER_QUARTER;
  return [
    { type, isDotted: true, isTriplet: false, ticks: 1.5 * ticks },
    { type, isDotted: false, isTriplet: false, ticks },
  ];
}).filter(({ ticks }) => Number.isInteger(ticks));

/** Triplets stand within one quarter. */
const TRIPLETS: readonly NoteValue[] = TYPES.filter(([, quarters]) => quarters <= 1).map(
  ([type, quarters]) => ({
    type,
    isDotted: false,
    isTriplet: true,
    ticks: (quarters * TICKS_PER_QUARTER * 2) / 3,
  }),
);

/** Instants that plain values reach, and those that triplets reach. */
const PLAIN_STEP = TICKS_PER_QUARTER / 16;
const TRIPLET_STEP = TICKS_PER_QUARTER / 24;

/** The nearest instant that can be written. */
export function writable(ticks: Ticks): Ticks {
  const to = (step: Ticks): Ticks => Math.round(ticks / step) * step;
  const [plain, triplet] = [to(PLAIN_STEP), to(TRIPLET_STEP)];
  return Math.abs(plain - ticks) <= Math.abs(triplet - ticks) ? plain : triplet;
}

/** Quarters of a bar in which anything begins or ends on a triplet, by their first tick. */
export function tripletBeats(instants: readonly Ticks[]): Set<Ticks> {
  return new Set(
    instants
      .filter((t) => t % PLAIN_STEP !== 0)
      .map((t) => Math.floor(t / TICKS_PER_QUARTER) * TICKS_PER_QUARTER),
  );
}

/** Largest first that fit; what no value fits is left. */
function greedy(from: Ticks, to: Ticks, values: readonly NoteValue[], isAligned: boolean): NoteValue[] {
  const taken: NoteValue[] = [];
  for (let at = from; at < to; at += taken.at(-1)!.ticks) {
    const fits = values.find(({ ticks, isDotted }) => {
      const base = isDotted ? ticks / 1.5 : ticks;
      // A value begins on a multiple of half its length: what is longer hides the beat.
      return ticks <= to - at && (!isAligned || at % (base / 2) === 0);
    });
    if (!fits) break;
    taken.push(fits);
  }
  return taken;
}

/** The values of [from, to), both writable and counted from the start of the bar; tied together they last as long. */
export function noteValues(from: Ticks, to: Ticks, triplets: ReadonlySet<Ticks>): NoteValue[] {
  const values: NoteValue[] = [];
  let at = from;
  while (at < to) {
    const beat = Math.floor(at / TICKS_PER_QUARTER) * TICKS_PER_QUARTER;
    if (triplets.has(beat)) {
      const end = Math.min(to, beat + TICKS_PER_QUARTER);
      const isWhole = at === beat && end === beat + TICKS_PER_QUARTER;
      values.push(...(isWhole ? greedy(at, end, PLAIN, false) : greedy(at, end, TRIPLETS, false)));
      at = end;
      continue;
    }
    let end = beat + TICKS_PER_QUARTER;
    while (end < to && !triplets.has(end)) end += TICKS_PER_QUARTER;
    end = Math.min(to, end);
    values.push(...greedy(at, end, PLAIN, true));
    at = end;
  }
  return values;
}
