/**
 * How far what was heard agrees with what is true. Definitions: onsets, F-measure with one-to-one matching (Böck, Krebs
 * and Schedl, ISMIR 2012); beats, F-measure within 70 ms (Davies, Degara and Plumbley 2009, "Evaluation methods for
 * musical audio beat tracking algorithms"); chords, share of time with the right chord (weighted chord symbol recall,
 * Harte 2010, "Towards automatic extraction of harmony information from music signals", section 8.1); section labels,
 * pairwise frames (Levy and Sandler 2008, "Structural segmentation of musical audio by constrained clustering"); doubts, area
 * under the curve (Hanley and McNeil 1982, "The meaning and use of the area under a receiver operating characteristic (ROC)
 * curve") and the score of Brier (1950, "Verification of forecasts expressed in terms of probability").
 */

/** Pairs of indices [heard, true] within the tolerance, the most that are possible; both lists ascend. */
export function matchTimes(
  heardS: readonly number[],
  trueS: readonly number[],
  toleranceS: number,
): (readonly [number, number])[] {
  const pairs: (readonly [number, number])[] = [];
  let [h, t] = [0, 0];
  // In ascending lists the earliest possible partner leaves most for those that follow.
  while (h < heardS.length && t < trueS.length) {
    const gap = heardS[h] - trueS[t];
    if (Math.abs(gap) <= toleranceS) pairs.push([h++, t++]);
    else if (gap < 0) h++;
    else t++;
  }
  return pairs;
}

/** Harmonic mean of precision and recall from counts; 1 when there is nothing to find and nothing was said. */
export function fMeasure(hits: number, heard: number, there: number): number {
  return heard + there === 0 ? 1 : (2 * hits) / (heard + there);
}

export function timesF(heardS: readonly number[], trueS: readonly number[], toleranceS: number): number {
  return fMeasure(matchTimes(heardS, trueS, toleranceS).length, heardS.length, trueS.length);
}

export interface LabelledSpan {
  readonly startS: number;
  readonly endS: number;
  readonly label: string;
}

/** What is said of an instant; null between spans. */
function labelAt(spans: readonly LabelledSpan[], timeS: number): string | null {
  return spans.find((s) => timeS >= s.startS && timeS < s.endS)?.label ?? null;
}

/** Share of the time of `truth` in which `heard` says the same label. */
export function weightedRecall(heard: readonly LabelledSpan[], truth: readonly LabelledSpan[]): number {
  let [same, total] = [0, 0];
  for (const { startS, endS, label } of truth) {
    total += endS - startS;
    for (const other of heard) {
      if (other.label !== label) continue;
      same += Math.max(0, Math.min(endS, other.endS) - Math.max(startS, other.startS));
    }
  }
  return total === 0 ? 1 : same / total;
}

/** Frames of this length for comparing labels. */
const FRAME_S = 0.1;

/** F-measure over pairs of frames that share a label: letters may differ, what counts is what is alike. */
export function pairwiseF(heard: readonly LabelledSpan[], truth: readonly LabelledSpan[]): number {
  const endS = Math.max(...truth.map((s) => s.endS));
  const counts = new Map<string, number>();
  const heardCounts = new Map<string, number>();
  const trueCounts = new Map<string, number>();
  const add = (map: Map<string, number>, key: string): void => void map.set(key, (map.get(key) ?? 0) + 1);
  for (let timeS = FRAME_S / 2; timeS < endS; timeS += FRAME_S) {
    const [h, t] = [labelAt(heard, timeS), labelAt(truth, timeS)];
    if (h === null || t === null) continue;
    add(counts, JSON.stringify([h, t]));
    add(heardCounts, h);
    add(trueCounts, t);
  }
  const pairs = (map: Map<string, number>): number =>
    [...map.values()].reduce((sum, n) => sum + (n * (n - 1)) / 2, 0);
  return fMeasure(pairs(counts), pairs(heardCounts), pairs(trueCounts));
}

/** How often a wrong one is doubted more than a right one; equal doubts count half. NaN without one of either. */
export function areaUnderCurve(wrong: readonly number[], right: readonly number[]): number {
  const sum = wrong.reduce(
    (total, w) => total + right.reduce((beaten, r) => beaten + (r < w ? 1 : r === w ? 0.5 : 0), 0),
    0,
  );
  return sum / (wrong.length * right.length);
}

/** Mean square of what a probability is off: half of what Brier sums over both outcomes. 0 is best. */
export function brierScore(said: readonly number[], happened: readonly boolean[]): number {
  return said.reduce((sum, p, i) => sum + (p - Number(happened[i])) ** 2, 0) / said.length;
}
