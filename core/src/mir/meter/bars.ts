/**
 * Bar lines over the whole recording, from the reading of tempo and meter that was chosen: bars of another length where
 * the downbeats clearly move, no bars in free time, and after it the downbeat found anew.
 */
import { maxIndex } from 'd3-array';
import { findFreeTime } from './free-time';
import { longestStretch, soundingStretches, type TimeSpan } from './stretches';
import {
  groupedPerTempoBeat,
  middleTempo,
  downbeatReadings,
  readPulse,
  type Grouping,
  type MeterHypothesis,
  type MeterStrum,
} from './meter';
import { downbeatEvidence, scoreMeters, type MeterWeights } from './score-meters';
import type { OnsetStrength } from '../onsets/onset-strength';
import type { BeatGrid } from '../types';

export interface BarLayout extends BeatGrid {
  /** Of each bar, in order of the downbeats; those of a changing meter differ. */
  readonly beatsPerBar: readonly number[];
  /** Without beats and bars. */
  readonly freeTime: readonly TimeSpan[];
}

/**
 * Evidence that a bar of another length must bring in all the bars that it moves. Chosen on generated songs of 24 s with
 * and without half a bar cut out (docs/experiments.md): at 14 one song in eight got a change that is none, at 30 none did,
 * and only changes with many clear bars on both sides are found.
 */
const CHANGE_COST = 30;
/** Usual bars between two changes, at least: one that does not last is noise. */
const PROVEN_BARS = 4;
/** A strum is on a beat or bar line within this. */
const NEAR_S = 0.06;

/** Pulses per bar other than usual: a beat more or less, half a bar, half a bar more. */
function otherLengths({ pulses, beats }: Grouping): number[] {
  const lengths = [beats - 1, beats + 1, ...(beats % 2 === 0 ? [beats / 2, (3 * beats) / 2] : [])];
  return [...new Set(lengths)].filter((b) => b >= 2 && b !== beats).map((b) => b * pulses);
}

/**
 * Pulses that bars start on, for the most evidence less {@link CHANGE_COST} per unusual bar (dynamic programming over
 * pulse and number of usual bars since the last unusual one).
 */
function bestDownbeats(evidence: Float32Array, grouping: Grouping, firstPhase: number | null): number[] {
  const usual = grouping.pulses * grouping.beats;
  const others = otherLengths(grouping);
  const count = evidence.length;
  const states = PROVEN_BARS + 1;
  const score = new Float64Array(count * states).fill(-Infinity);
  const back = new Int32Array(count * states).fill(-1);
  const reach = (n: number, state: number, from: number, total: number): void => {
    const to = n * states + state;
    if (total > score[to]) [score[to], back[to]] = [total, from];
  };
  for (let n = 0; n < count; n++) {
    if (n < usual && (firstPhase === null || n === firstPhase)) score[n * states + PROVEN_BARS] = 0;
    for (let state = 0; n >= usual && state < states; state++) {
      const from = (n - usual) * states + state;
      reach(n, Math.min(PROVEN_BARS, state + 1), from, score[from]);
    }
    for (const length of others) {
      const from = (n - length) * states + PROVEN_BARS;
      if (n >= length) reach(n, 0, from, score[from] - CHANGE_COST);
    }
    for (let state = 0; state < states; state++) score[n * states + state] += evidence[n];
  }
  let at = -1;
  for (let i = Math.max(0, count - usual) * states; i < score.length; i++) {
    // A change must have proved itself before the end.
    const isProven = i % states === PROVEN_BARS;
    if (isProven && score[i] > -Infinity && (at < 0 || score[i] > score[at])) at = i;
  }
  const downbeats: number[] = [];
  for (; at >= 0; at = back[at]) downbeats.push(Math.floor(at / states));
  return downbeats.reverse();
}

/**
 * Evidence less what each place of the usual bar has too much of over the whole recording. The reading was chosen by more
 * than this evidence; a place that outdoes its downbeat everywhere, as the half of a bar with the stronger chord, is none for it,
 * and only bars in which it stands out more than elsewhere speak for a change.
 */
function againstReading(evidence: Float32Array, usual: number, phase: number): Float32Array {
  const sums = new Float64Array(usual);
  const counts = new Float64Array(usual);
  evidence.forEach((value, n) => {
    sums[n % usual] += value;
    counts[n % usual]++;
  });
  const excess = Array.from(sums, (sum, p) =>
    Math.max(0, sum / Math.max(1, counts[p]) - sums[phase] / Math.max(1, counts[phase])),
  );
  return evidence.map((value, n) => value - excess[n % usual]);
}

/** Between passages in free time, and from one sounding stretch to the next: a silence is counted with what was before it. */
function meteredSpans(
  freeTime: readonly TimeSpan[],
  stretches: readonly TimeSpan[],
  durationS: number,
): TimeSpan[] {
  const edges = [0, ...freeTime.flatMap((f) => [f.startS, f.endS]), durationS + 1];
  return Array.from(
    { length: edges.length / 2 },
    (_, i) => [edges[2 * i], edges[2 * i + 1]] as const,
  ).flatMap(([startS, endS]) => {
    const breaks = stretches
      .slice(1)
      .flatMap((s) => (s.startS > startS && s.startS < endS ? [s.startS] : []));
    const all = [startS, ...breaks, endS];
    return all.slice(1).map((to, i) => ({ startS: all[i] - NEAR_S, endS: to - NEAR_S }));
  });
}

const likeliestPhase = (readings: readonly MeterHypothesis[], weights: MeterWeights): number =>
  readings[maxIndex(scoreMeters(readings, weights))].phase;

/**
 * Beats and bars of a reading over the whole recording. `strength` and `strums` are what the reading was ranked by, `weights` say how
 * much each speaks for a downbeat.
 */
export function placeBars(
  { grouping, pulse, phase }: MeterHypothesis,
  strums: readonly MeterStrum[],
  strength: OnsetStrength,
  durationS: number,
  weights: MeterWeights,
): BarLayout {
  const { pulses, beats, meter } = grouping;
  const usual = pulses * beats;
  const freeTime = findFreeTime(strums, pulse, durationS);
  const heard = downbeatEvidence(readPulse(pulse, strums, strength));
  // Without free time the reading has already weighed where the downbeats are over all that it was read in.
  const stretches = soundingStretches(strength);
  const readIn = stretches.length > 1 ? longestStretch(stretches) : null;
  const isWholeReading = freeTime.length === 0;
  const beatsS: number[] = [];
  const downbeatsS: number[] = [];
  const beatsPerBar: number[] = [];
  for (const { startS, endS } of meteredSpans(freeTime, stretches, durationS)) {
    const from = pulse.timesS.findIndex((t) => t >= startS);
    if (from < 0) continue;
    let to = from;
    while (to < pulse.timesS.length && pulse.timesS[to] < endS) to++;
    if (to - from < usual) continue;
    const isRead = isWholeReading && (readIn === null || (readIn.startS >= startS && readIn.startS < endS));
    const span = { periodS: pulse.periodS, timesS: pulse.timesS.slice(from, to) };
    const inside = strums.filter(({ timeS }) => timeS >= startS && timeS < endS);
    const firstPhase = isRead
      ? (((phase - from) % usual) + usual) % usual
      : likeliestPhase(downbeatReadings(span, inside, strength, grouping), weights);
    const evidence = againstReading(heard, usual, (from + firstPhase) % usual).subarray(from, to);
    const downbeats = bestDownbeats(evidence, grouping, firstPhase).map((n) => from + n);
    for (
      let n = downbeats[0] - pulses * Math.floor((downbeats[0] - from) / pulses);
      n < downbeats[0];
      n += pulses
    ) {
      beatsS.push(pulse.timesS[n]);
    }
    downbeats.forEach((downbeat, i) => {
      const next = downbeats[i + 1] ?? Math.min(to, downbeat + usual);
      downbeatsS.push(pulse.timesS[downbeat]);
      beatsPerBar.push(Math.ceil((next - downbeat) / pulses));
      for (let n = downbeat; n < next; n += pulses) beatsS.push(pulse.timesS[n]);
    });
  }
  const tempoBpm =
    middleTempo(beatsS, grouping) ?? 60 / (pulse.periodS * pulses * groupedPerTempoBeat(grouping));
  return {
    tempoBpm,
    meter,
    beatsS,
    downbeatsS,
    beatsPerBar,
    freeTime,
  };
}
