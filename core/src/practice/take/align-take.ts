/**
 * Which stroke of a take is which written strum: in order, none twice, some missed, some too many. The player is late or early as a whole, by
 * the delay of the device and by habit, and drifts; both are found from the strokes themselves.
 */

/** Something struck, with the probability that it is a stroke of the guitar at all. */
export interface TakeStroke {
  readonly timeS: number;
  readonly probability: number;
}

export interface Alignment {
  /** For each written strum the index of its stroke; null where nothing was struck. */
  readonly strokeOf: readonly (number | null)[];
  /** Strokes that no strum is written for, by index. */
  readonly extra: readonly number[];
  /** Struck minus written over the whole take, seconds: the delay of the device and the player's habit. */
  readonly offsetS: number;
}

/** Delay and lateness that are looked for, seconds. */
const LEAST_OFFSET_S = -0.08;
const MOST_OFFSET_S = 0.2;
const OFFSET_STEP_S = 0.002;
/** A player is about so far from his own mean (the musical literature on tapping has 10 to 40 ms). */
const SPREAD_S = 0.03;
/** A known delay leaves this much for the player. */
const HABIT_S = 0.08;
/** A strum is never played further from its place; and never nearer to the next one than to its own. */
const FURTHEST_S = 0.17;
/** What it costs, in log-odds, to leave a written strum without a stroke: one in fifty is missed. */
const MISSED = 3.9;
/** And a sure stroke without a strum: one in fifty is too many. */
const TOO_MANY = 3.9;
/**
 * Strokes less likely than this are none. A take has no drums: what the hearing takes for one, at the place of a strum, is a soft strum.
 */
const LEAST_LIKELY = 0.003;
/** What an unlikely stroke costs at the most, as the stroke of a written strum. */
const UNLIKELY = 2;
/** Neighbours on each side that tell how far the player has drifted. */
const DRIFT_STRUMS = 5;
const ROUNDS = 3;

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return sorted.length % 2 === 1 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}

/** How well the strokes lie on the strums when all of them are late by this much. */
function fit(writtenS: readonly number[], strokes: readonly TakeStroke[], offsetS: number): number {
  let sum = 0;
  let from = 0;
  for (const w of writtenS) {
    const at = w + offsetS;
    while (from < strokes.length && strokes[from].timeS < at - 4 * SPREAD_S) from++;
    let best = 0;
    for (let j = from; j < strokes.length && strokes[j].timeS <= at + 4 * SPREAD_S; j++) {
      const apart = (strokes[j].timeS - at) / SPREAD_S;
      best = Math.max(best, strokes[j].probability * Math.exp(-(apart * apart) / 2));
    }
    sum += best;
  }
  return sum;
}

function commonOffset(
  writtenS: readonly number[],
  strokes: readonly TakeStroke[],
  [least, most]: readonly [number, number],
): number {
  let [best, bestFit] = [(least + most) / 2, -1];
  for (let offset = least; offset <= most; offset += OFFSET_STEP_S) {
    const here = fit(writtenS, strokes, offset);
    if (here > bestFit) [best, bestFit] = [offset, here];
  }
  return best;
}

/** Half the way to the nearest neighbour, within reach. */
function reachOf(writtenS: readonly number[], i: number): number {
  const before = i > 0 ? writtenS[i] - writtenS[i - 1] : Infinity;
  const after = i + 1 < writtenS.length ? writtenS[i + 1] - writtenS[i] : Infinity;
  return Math.min(FURTHEST_S, Math.max(0.03, Math.min(before, after) / 2));
}

/** The likeliest pairs in order (Needleman and Wunsch 1970): `centres[i]` is how late strum i is expected. */
function pairInOrder(
  writtenS: readonly number[],
  strokes: readonly TakeStroke[],
  centres: readonly number[],
  spreadS: number,
): (number | null)[] {
  const [n, m] = [writtenS.length, strokes.length];
  const logOdds = strokes.map(({ probability }) => {
    const p = Math.min(0.999, Math.max(0.001, probability));
    return Math.log(p / (1 - p));
  });
  const width = m + 1;
  const cost = new Float64Array((n + 1) * width);
  const step = new Uint8Array((n + 1) * width);
  /** A stroke that is left over: what is hardly one costs nothing. */
  const leftOver = (j: number): number => Math.max(0, Math.min(TOO_MANY, logOdds[j] + TOO_MANY / 2));
  for (let j = 1; j <= m; j++) [cost[j], step[j]] = [cost[j - 1] + leftOver(j - 1), 2];
  for (let i = 1; i <= n; i++) {
    [cost[i * width], step[i * width]] = [cost[(i - 1) * width] + MISSED, 1];
    const reach = reachOf(writtenS, i - 1);
    for (let j = 1; j <= m; j++) {
      const at = i * width + j;
      const missed = cost[at - width] + MISSED;
      const extra = cost[at - 1] + leftOver(j - 1);
      [cost[at], step[at]] = missed <= extra ? [missed, 1] : [extra, 2];
      const apart = strokes[j - 1].timeS - writtenS[i - 1] - centres[i - 1];
      if (Math.abs(apart) > reach) continue;
      const both =
        cost[at - width - 1] + (apart / spreadS) ** 2 / 2 + Math.min(UNLIKELY, Math.max(0, -logOdds[j - 1]));
      if (both < cost[at]) [cost[at], step[at]] = [both, 0];
    }
  }
  const strokeOf = new Array<number | null>(n).fill(null);
  for (let i = n, j = m; i > 0 || j > 0;) {
    const taken = step[i * width + j];
    if (taken === 0) strokeOf[--i] = --j;
    else if (taken === 1) i--;
    else j--;
  }
  return strokeOf;
}

/** How late each strum is expected: as late as its neighbours were. */
function drift(
  writtenS: readonly number[],
  strokes: readonly TakeStroke[],
  strokeOf: readonly (number | null)[],
  offsetS: number,
): number[] {
  const late = strokeOf.map((j, i) => (j === null ? null : strokes[j].timeS - writtenS[i]));
  return writtenS.map((_, i) => {
    const near = late.slice(Math.max(0, i - DRIFT_STRUMS), i + DRIFT_STRUMS + 1).filter((x) => x !== null);
    return near.length < 3 ? offsetS : median(near);
  });
}

/** `writtenS` and `strokes` in order of time; `delayS`: of the device, where it is known. */
export function alignTake(
  writtenS: readonly number[],
  strokes: readonly TakeStroke[],
  delayS: number | null,
): Alignment {
  const likely = strokes.map((s, index) => ({ ...s, index })).filter((s) => s.probability >= LEAST_LIKELY);
  const range =
    delayS === null
      ? ([LEAST_OFFSET_S, MOST_OFFSET_S] as const)
      : ([delayS - HABIT_S, delayS + HABIT_S] as const);
  let offsetS = commonOffset(writtenS, likely, range);
  let centres = writtenS.map(() => offsetS);
  let strokeOf = pairInOrder(writtenS, likely, centres, 2 * SPREAD_S);
  for (let round = 1; round < ROUNDS; round++) {
    const late = strokeOf.flatMap((j, i) => (j === null ? [] : [likely[j].timeS - writtenS[i]]));
    if (late.length > 0) offsetS = median(late);
    centres = drift(writtenS, likely, strokeOf, offsetS);
    strokeOf = pairInOrder(writtenS, likely, centres, SPREAD_S);
  }
  const taken = new Set(strokeOf);
  return {
    offsetS,
    strokeOf: strokeOf.map((j) => (j === null ? null : likely[j].index)),
    extra: likely.flatMap((s, j) => (taken.has(j) ? [] : [s.index])),
  };
}
