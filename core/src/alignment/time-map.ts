/** From the time of the reference to that of another recording and back, over an alignment. */
import { bisector } from 'd3-array';
import type { Alignment, SameMoment } from './align';

/** A stretch that only one of both plays, seconds of that one. */
export interface OnlyIn {
  readonly recording: 'reference' | 'other';
  readonly startS: number;
  readonly endS: number;
}

export interface TimeMap {
  /** Seconds of the other recording; it ascends strictly, so that a beat stays before the next one. */
  readonly toOther: (referenceS: number) => number;
  readonly toReference: (otherS: number) => number;
  /** In order, those of the reference first. */
  readonly onlyIn: readonly OnlyIn[];
}

export interface Lengths {
  readonly referenceS: number;
  readonly otherS: number;
}

/** Parts that are shorter belong to both: the ends of runs are not that exact. */
const LEAST_PART_S = 3;
/** What the longer part of a place lasts more than the shorter one at least, to be told as a part of its own. */
const LONGER_S = 2;
/** Where one has nothing at all, moments still ascend. */
const HARDLY_S = 1e-3;

const byReference = bisector((m: SameMoment) => m[0]);
const byOther = bisector((m: SameMoment) => m[1]);

/** On the line between the moments around `timeS`, and beyond them on the outer ones. */
function along(moments: readonly SameMoment[], n: number, from: 0 | 1, timeS: number): number {
  const k = Math.min(moments.length - 2, Math.max(0, n - 1));
  const [one, two] = [moments[k], moments[k + 1]];
  const to = from === 0 ? 1 : 0;
  return one[to] + ((timeS - one[from]) * (two[to] - one[to])) / (two[from] - one[from]);
}

/** Both recordings from their start to their end: what only one of them has is hurried through in the other. */
function wholeOf(runs: Alignment['runs'], { referenceS, otherS }: Lengths): SameMoment[] {
  const inner = runs.flat();
  const [first, last] = [inner[0], inner[inner.length - 1]];
  const before = Math.min(first[0], first[1]);
  const after = Math.min(referenceS - last[0], otherS - last[1]);
  const isLed = before > HARDLY_S;
  const isFollowed = after > HARDLY_S;
  return [
    ...(isLed ? [[first[0] - before, first[1] - before] as const] : []),
    ...inner,
    ...(isFollowed ? [[last[0] + after, last[1] + after] as const] : []),
  ];
}

/** `runs` of an alignment, at least one of two moments. */
export function timeMapOf({ runs }: Pick<Alignment, 'runs'>, lengths: Lengths): TimeMap {
  const moments = wholeOf(runs, lengths);
  const [first, last] = [moments[0], moments[moments.length - 1]];
  // In front of the first common moment, and behind the last one, only one of them goes on.
  const ends: SameMoment[] = [
    ...(first[0] + first[1] > 0
      ? [[Math.min(0, first[0] - HARDLY_S), Math.min(0, first[1] - HARDLY_S)] as const]
      : []),
    ...moments,
    [Math.max(lengths.referenceS, last[0] + HARDLY_S), Math.max(lengths.otherS, last[1] + HARDLY_S)],
  ];
  const gaps = [
    [[0, 0] as const, runs[0][0]],
    ...runs.slice(1).map((run, i) => [runs[i][runs[i].length - 1], run[0]] as const),
    [runs[runs.length - 1].at(-1) ?? [0, 0], [lengths.referenceS, lengths.otherS] as const],
  ] as const;
  const only = (recording: OnlyIn['recording'], mine: 0 | 1): OnlyIn[] =>
    gaps
      .filter(([from, to]) => {
        const [own, others] = [to[mine] - from[mine], to[1 - mine] - from[1 - mine]];
        return own >= LEAST_PART_S && own - others >= LONGER_S;
      })
      .map(([from, to]) => ({ recording, startS: from[mine], endS: to[mine] }));
  return {
    toOther: (timeS) => along(ends, byReference.right(ends, timeS), 0, timeS),
    toReference: (timeS) => along(ends, byOther.right(ends, timeS), 1, timeS),
    onlyIn: [...only('reference', 0), ...only('other', 1)],
  };
}
