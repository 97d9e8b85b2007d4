/** Which segments play the same riff, also moved: all their passes are compared, since on records one pass alone is heard as anything. */
import { linkByAverage, type Linked } from './average-linkage';
import type { BarLikeness } from './bar-likeness';
import type { Segment } from './segmentation';

/**
 * Segments whose bars agree this far are the same riff. Of .55 to .7 the least with which .80 of the bars that are said to be the same of a riff are so in the
 * guitar stem of the four real songs; from .66 on rendered songs lose labels. See docs/experiments.md.
 */
const SAME_RIFF = 0.64;
/** A moved riff is an extra assumption and must fit clearly better than a new one. */
const MOVED_DISADVANTAGE = 0.05;
/** So is one that is longer than it was found to be. */
const LONGER_DISADVANTAGE = 0.05;
const SEMITONES = 12;
/** Moved riffs are looked for this many bars away: a song moves one within it, and in long recordings all twelve heights of all pairs would cost their square. */
const FARTHEST_MOVED = 160;

/** Passes of a segment that are compared, evenly spaced: more say hardly more, and their pairs would cost their square. */
const COMPARED_PASSES = 2;

/** First bars of the passes that speak for a segment. */
function spokenFor({ start, barsPerPass, passes }: Segment): number[] {
  const count = Math.min(passes, COMPARED_PASSES);
  return Array.from(
    { length: count },
    (_, i) => start + barsPerPass * Math.round((i * (passes - 1)) / Math.max(1, count - 1)),
  );
}

/** The same over whole passes: those of both segments, over the bars of the shorter ones. */
function passLikeness(likeness: BarLikeness, earlier: Segment, later: Segment, shift: number): number {
  const short = Math.min(earlier.barsPerPass, later.barsPerPass);
  let [sum, pairs] = [0, 0];
  for (const one of spokenFor(earlier)) {
    for (const other of spokenFor(later)) {
      for (let a = 0; a < earlier.barsPerPass; a++) {
        for (let b = a % short; b < later.barsPerPass; b += short) {
          sum += likeness(one + a, other + b, shift);
          pairs++;
        }
      }
    }
  }
  return sum / pairs;
}

/**
 * How far two segments play the same when the first is moved, 0 to 1: the mean over the same bars of their passes. Passes of 2 and of 4 bars are compared over 2, and over
 * 4 where both last as long: of the riff of 4 the other may be two halves that are nearly alike. Where one length is no multiple of the other it is another riff.
 */
export function segmentLikeness(
  likeness: BarLikeness,
  earlier: Segment,
  later: Segment,
  shift: number,
): number {
  const [short, long] = [earlier.barsPerPass, later.barsPerPass].sort((a, b) => a - b);
  if (long % short !== 0) return 0;
  const overShort = passLikeness(likeness, earlier, later, shift);
  const whole = [earlier, later].map((segment) => inPassesOf(long, segment));
  if (short === long || whole.some(({ passes }) => passes === 0)) return overShort;
  return Math.max(overShort, passLikeness(likeness, whole[0], whole[1], shift) - LONGER_DISADVANTAGE);
}

function inPassesOf(bars: number, { start, barsPerPass, passes }: Segment): Segment {
  return { start, barsPerPass: bars, passes: Math.floor((barsPerPass * passes) / bars) };
}

/** For each segment the first that plays its riff, and how many semitones over it this one does. */
export function findSameRiffs(likeness: BarLikeness, segments: readonly Segment[]): Linked[] {
  return linkByAverage({
    weights: segments.map((s) => s.passes),
    likeness: (a, b, shift) =>
      shift !== 0 && segments[b].start - segments[a].start > FARTHEST_MOVED
        ? 0
        : segmentLikeness(likeness, segments[a], segments[b], shift),
    steps: SEMITONES,
    atLeast: SAME_RIFF,
    movedCosts: MOVED_DISADVANTAGE,
  });
}
