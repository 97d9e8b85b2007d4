/**
 * Cuts a song into segments of n passes of p bars, by dynamic programming over bar lines for the shortest description:
 * a new bar costs {@link NEW_BAR}, a bar that was there before (earlier in the song at any height, or in the first pass)
 * only what it differs by (after Müller and Clausen 2007, "Transposition-invariant self-similarity matrices", ISMIR; the
 * principle of minimum description length, Rissanen 1978). The last pass may end otherwise, on a fill or the way into the next part. A cut is
 * cheaper where the onsets change. Summing over all ways to cut instead of taking the cheapest (the forward-backward algorithm, Rabiner 1989)
 * says how sure each cut is.
 */
import { logAdd } from '../net/probability';
import type { BarLikeness } from './bar-likeness';

/** Costs in units of "one bar entirely different". */
export const NEW_BAR = 0.5;
/** A cut must pay for itself; keeps noise from splitting a riff. */
const NEW_SECTION = 0.6;
/** Of which a clear change of the onsets pays this much. */
const NOVELTY_SHARE = 0.6;
/** Saying which earlier place is meant, and that it is moved. */
const COPY = 0.3;
const MOVED = 0.2;
/** Passes are one, two, four or eight bars long (common practice in rock) … */
export const PASS_LENGTHS = [1, 2, 3, 4, 6, 8];
/** … and what one of three or six costs: else the two bars of an ending stick to the four before or behind them. */
const IN_THREES = 0.3;
/** A pass may end on another bar, at the cost of a new one, where the bars before it differ by no more than this each. */
const ENDING_AFTER = 0.2;
const MAX_PASSES = 16;
/** Sections are counted in fours (common practice in rock): what one costs in twos or an odd number of bars, unless the song ends with it. */
const IN_TWOS = 0.1;
const IN_ODD = 0.2;
/** Earlier places are looked for this far back: verses return within it, and costs stay linear in long recordings. */
const FARTHEST_COPY = 160;
/**
 * Nats per unit of cost when costs are taken for log-probabilities. Set on the generated validation songs of
 * `training/`, so that of the cuts said to be sure by a share about that share is one.
 */
const NATS_PER_COST = 4;

export interface Segment {
  readonly start: number;
  readonly barsPerPass: number;
  readonly passes: number;
}

export interface Segmentation {
  readonly segments: readonly Segment[];
  /** Probability that a segment begins at each bar, one more than there are bars; 1 at both ends. */
  readonly cutProbability: Float64Array;
  /** How long it takes to say the song this way. */
  readonly cost: number;
}

/** What a pass costs whose last bar differs from the one it repeats by `last`, the `others` before it together by `rest`. */
function passCost(rest: number, last: number, others: number): number {
  const isEnding = others > 0 && rest <= ENDING_AFTER * others;
  return rest + (isEnding ? Math.min(NEW_BAR, last) : last);
}

/** Cheapest way to say the bars [start, start + length): new, or as an earlier place at some height. */
function firstPassCosts(likeness: BarLikeness, count: number, start: number): number[] {
  const longest = PASS_LENGTHS[PASS_LENGTHS.length - 1];
  const best = Array.from({ length: longest + 1 }, (_, length) => NEW_BAR * length);
  for (let earlier = Math.max(0, start - FARTHEST_COPY); earlier < start; earlier++) {
    for (let shift = 0; shift < 12; shift++) {
      const copy = COPY + (shift === 0 ? 0 : MOVED);
      let rest = 0;
      for (let b = 0; b < longest && start + b < count && earlier + b < start; b++) {
        const last = 1 - likeness(earlier + b, start + b, shift);
        best[b + 1] = Math.min(best[b + 1], copy + passCost(rest, last, b));
        rest += last;
        if (copy + rest > NEW_BAR * longest) break;
      }
    }
  }
  return best;
}

interface Candidate extends Segment {
  readonly end: number;
  /** Of this segment alone. */
  readonly cost: number;
}

function oddness(bars: number): number {
  if (bars % 4 === 0) return 0;
  return bars % 2 === 0 ? IN_TWOS : IN_ODD;
}

/** Every segment that may begin at a bar. */
function candidatesFrom(likeness: BarLikeness, count: number, start: number, change: number): Candidate[] {
  const first = firstPassCosts(likeness, count, start);
  const candidates: Candidate[] = [];
  for (const barsPerPass of PASS_LENGTHS) {
    const differs = (from: number, b: number): number => 1 - likeness(start + b, from + b, 0);
    let before = NEW_SECTION * (1 - NOVELTY_SHARE * change) + (barsPerPass % 3 === 0 ? IN_THREES : 0);
    for (let passes = 1; passes <= MAX_PASSES; passes++) {
      const end = start + barsPerPass * passes;
      if (end > count) break;
      let rest = 0;
      for (let b = 0; passes > 1 && b < barsPerPass - 1; b++) rest += differs(end - barsPerPass, b);
      const last = passes > 1 ? differs(end - barsPerPass, barsPerPass - 1) : 0;
      const pass = passes > 1 ? passCost(rest, last, barsPerPass - 1) : first[barsPerPass];
      const cost = before + pass + (end === count ? 0 : oddness(end - start));
      candidates.push({ start, barsPerPass, passes, end, cost });
      before += passes > 1 ? rest + last : pass;
    }
  }
  return candidates;
}

function cutProbability(candidates: readonly (readonly Candidate[])[]): Float64Array {
  const bars = candidates.length;
  const before = new Float64Array(bars + 1).fill(-Infinity);
  const after = new Float64Array(bars + 1).fill(-Infinity);
  before[0] = 0;
  after[bars] = 0;
  for (const { start, end, cost } of candidates.flat()) {
    before[end] = logAdd(before[end], before[start] - NATS_PER_COST * cost);
  }
  for (const some of [...candidates].reverse()) {
    for (const { start, end, cost } of some) {
      after[start] = logAdd(after[start], after[end] - NATS_PER_COST * cost);
    }
  }
  return before.map((b, i) => Math.exp(b + after[i] - before[bars]));
}

/** `changes`: how much the onsets change at each bar of the song, 0 to 1. */
export function segmentBars(likeness: BarLikeness, changes: readonly number[]): Segmentation {
  const count = changes.length;
  const candidates = changes.map((change, start) => candidatesFrom(likeness, count, start, change));
  const least = new Float64Array(count + 1).fill(Infinity);
  const from: Candidate[] = [];
  least[0] = 0;
  for (const candidate of candidates.flat()) {
    const total = least[candidate.start] + candidate.cost;
    if (total < least[candidate.end]) {
      least[candidate.end] = total;
      from[candidate.end] = candidate;
    }
  }
  const segments: Segment[] = [];
  for (let end = count; end > 0; end = from[end].start) segments.push(from[end]);
  return { segments: segments.reverse(), cutProbability: cutProbability(candidates), cost: least[count] };
}
