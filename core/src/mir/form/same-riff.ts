/** Which segments play the same riff, also moved: all their passes are compared, since on records one pass alone is heard as anything. */
import { linkByAverage, type Linked } from './average-linkage';
import type { BarLikeness } from './bar-likeness';
import type { Segment } from './segmentation';

/** Segments whose bars agree this far are the same riff. */
const SAME_RIFF = 0.6;
/** A moved riff is an extra assumption and must fit clearly better than a new one. */
const MOVED_DISADVANTAGE = 0.1;
const SEMITONES = 12;

/**
 * How far two segments play the same when the first is moved, 0 to 1: the mean over the same bars of all passes. Passes of 2 and of 4 bars are compared over 2;
 * where one length is no multiple of the other it is another riff.
 */
export function segmentLikeness(
  likeness: BarLikeness,
  earlier: Segment,
  later: Segment,
  shift: number,
): number {
  const [short, long] = [earlier.barsPerPass, later.barsPerPass].sort((a, b) => a - b);
  if (long % short !== 0) return 0;
  let [sum, pairs] = [0, 0];
  for (let a = 0; a < earlier.barsPerPass * earlier.passes; a++) {
    for (let b = a % short; b < later.barsPerPass * later.passes; b += short) {
      sum += likeness(earlier.start + a, later.start + b, shift);
      pairs++;
    }
  }
  return sum / pairs;
}

/** For each segment the first that plays its riff, and how many semitones over it this one does. */
export function findSameRiffs(likeness: BarLikeness, segments: readonly Segment[]): Linked[] {
  return linkByAverage({
    weights: segments.map((s) => s.passes),
    likeness: (a, b, shift) => segmentLikeness(likeness, segments[a], segments[b], shift),
    steps: SEMITONES,
    atLeast: SAME_RIFF,
    movedCosts: MOVED_DISADVANTAGE,
  });
}
