/** From columns to time: counts say where the beats are, and without them the width of the bar does. */
import { ticksPerBeat, type RiffBar } from '../../riff';
import { TICKS_PER_QUARTER, type Ticks } from '../../units';
import type { Token } from './lines';

/** Parts of a beat that are counted (English syllables, common practice). */
const PARTS: Readonly<Record<string, number>> = {
  e: 1 / 4,
  '&': 1 / 2,
  '+': 1 / 2,
  n: 1 / 2,
  and: 1 / 2,
  a: 3 / 4,
  trip: 1 / 3,
  let: 2 / 3,
};

export interface Anchor {
  readonly column: number;
  /** Beats from the first of the bar. */
  readonly beats: number;
}

/** What is counted in the columns [from, to). */
export function anchorsOf(counts: readonly Token[], from: number, to: number): Anchor[] {
  let beat: number | null = null;
  return counts
    .filter(({ column }) => column >= from && column < to)
    .flatMap(({ column, text }): Anchor[] => {
      const number = Number(text);
      if (Number.isInteger(number)) beat = number;
      if (beat === null) return [];
      return [
        { column, beats: beat - 1 + (Number.isInteger(number) ? 0 : (PARTS[text.toLowerCase()] ?? 0)) },
      ];
    })
    .filter(({ beats }, i, all) => i === 0 || beats > all[i - 1].beats);
}

/** A strum under a syllable may stand one column beside it. */
const NEAR = 1;

/** The time of each column by what is counted, from the start of the bar; between two syllables in proportion. */
export function byCounts(columns: readonly number[], anchors: readonly Anchor[], bar: RiffBar): Ticks[] {
  const beat = ticksPerBeat(bar.unit);
  const [first, last] = [anchors[0], anchors[anchors.length - 1]];
  const pitch = anchors.length > 1 ? (last.beats - first.beats) / (last.column - first.column) : 0;
  return columns.map((column) => {
    const near =
      anchors.find((a) => a.column === column) ?? anchors.find((a) => Math.abs(a.column - column) <= NEAR);
    const next = anchors.findIndex((a) => a.column > column);
    const [a, b] = next > 0 ? [anchors[next - 1], anchors[next]] : [null, null];
    const own = near
      ? near.beats
      : a && b
        ? a.beats + ((column - a.column) / (b.column - a.column)) * (b.beats - a.beats)
        : last.beats + (column - last.column) * pitch;
    return Math.max(0, onGrid(own * beat));
  });
}

/** Finest steps that are written, 24 a quarter: sixteenths, triplets and what lies between. */
function onGrid(ticks: number): Ticks {
  const step = TICKS_PER_QUARTER / 24;
  return Math.round(ticks / step) * step;
}

/** Steps a quarter that are tried, coarsest first. */
const DIVISIONS = [1, 2, 4, 3, 8, 6] as const;
/** Columns before the first place of a bar, likeliest first. */
const LEADS = [1, 0, 2, 3] as const;
/** Columns behind the last place. */
const TRAILS = [0, 1] as const;
/** A strum may miss its place by this much of a step. */
const MISS = 0.2;

/** The time of each column by the width of its bar, [from, to); null where no even grid fits. */
export function byWidth(columns: readonly number[], from: number, to: number, bar: RiffBar): Ticks[] | null {
  const quarters = (bar.beats * ticksPerBeat(bar.unit)) / TICKS_PER_QUARTER;
  for (const division of DIVISIONS) {
    for (const lead of LEADS) {
      for (const trail of TRAILS) {
        const step = (to - from - lead - trail) / (quarters * division);
        if (step < 1 || columns.some((c) => c < from + lead)) continue;
        const places = columns.map((c) => (c - from - lead) / step);
        const isEven = places.every((p) => Math.abs(p - Math.round(p)) * step <= Math.min(MISS * step, 0.5));
        const rounded = places.map((p) => Math.round(p));
        const isApart = rounded.every((p, i) => p < quarters * division && (i === 0 || p > rounded[i - 1]));
        if (isEven && isApart) return rounded.map((p) => (p * TICKS_PER_QUARTER) / division);
      }
    }
  }
  return null;
}

/** The nearest sixteenths, each place once. */
export function byProportion(columns: readonly number[], from: number, to: number, bar: RiffBar): Ticks[] {
  const length = bar.beats * ticksPerBeat(bar.unit);
  const step = TICKS_PER_QUARTER / 4;
  let last = -step;
  return columns.map((column) => {
    const own = Math.round((((column - from) / Math.max(1, to - from)) * length) / step) * step;
    last = Math.max(last + step, own);
    return Math.min(last, length - step);
  });
}
