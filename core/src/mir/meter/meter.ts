/**
 * How the pulse is grouped into beats and bars. Every pulse, meter and place of the downbeat is a hypothesis; what speaks
 * for it is measured: low end, strums, new chords and brightness on the downbeats and on the beats, how well the song
 * repeats after a bar, how usual the tempo is. `score-meters.ts` weighs it.
 */
import { cosineSimilarity } from '../../dsp';
import type { OnsetStrength, Region } from '../onsets/onset-strength';
import { findPulses, pulseCurve, type Pulse } from './pulse';
import { beatsPerTempoBeat, type Meter } from '../../theory';
import type { BeatGrid } from '../types';
import { longestStretch, soundingStretches } from './stretches';

/** Pulses per beat and beats per bar, as they are counted and written. */
export interface Grouping {
  readonly pulses: number;
  readonly beats: number;
  readonly meter: Meter;
}

const GROUPINGS: readonly Grouping[] = [
  { pulses: 2, beats: 4, meter: { beats: 4, unit: 4 } },
  { pulses: 2, beats: 3, meter: { beats: 3, unit: 4 } },
  { pulses: 3, beats: 2, meter: { beats: 6, unit: 8 } },
  { pulses: 1, beats: 7, meter: { beats: 7, unit: 8 } },
  { pulses: 2, beats: 5, meter: { beats: 5, unit: 4 } },
  // Four beats of triplets.
  { pulses: 3, beats: 4, meter: { beats: 4, unit: 4 } },
];

/** Beats of a grouping that make one of the tempo: the dotted quarters of 6/8 are its beats, two eighths of 7/8 make one. */
export function groupedPerTempoBeat({ beats, meter }: Grouping): number {
  return (beatsPerTempoBeat(meter) * beats) / meter.beats;
}

/** What is struck where: `probability` that it is a stroke, the root for seeing chords change. */
export interface MeterStrum {
  readonly timeS: number;
  readonly rootPc: number | null;
  readonly probability: number;
}

export interface MeterHypothesis {
  readonly grouping: Grouping;
  readonly pulse: Pulse;
  /** Index of the first pulse that is a downbeat. */
  readonly phase: number;
  readonly tempoBpm: number;
  /** {@link METER_FEATURES} values. */
  readonly features: Float32Array;
}

const REGIONS: readonly Region[] = ['low', 'body', 'edge'];
/** Low, body, edge, strum, new chord. */
export const STREAMS = 5;
const STRUM = 3;
const CHANGE = 4;
const ROOTS = 12;
/** A strum belongs to the pulse this near, at most. */
const NEAR_S = 0.045;
const PER_STREAM = 3;
export const METER_FEATURES = STREAMS * PER_STREAM + 3 + 8 + GROUPINGS.length;
/** Usual tempo of rock songs, and the one that is on the edge of being counted in halves. */
const USUAL_BPM = 120;
const FAST_BPM = 185;
const SLOW_BPM = 75;
/** Songs slower or faster are counted in doubles or halves. */
export const SLOWEST_BPM = 40;
export const FASTEST_BPM = 260;

/** What happens at each pulse, and how it repeats. */
export interface PulseContent {
  /** STREAMS values per pulse, each stream of zero mean and unit variance. */
  readonly streams: Float32Array;
  /** Mean similarity of what happens `lag` pulses apart, in standard deviations over all lags. */
  readonly repetition: Float32Array;
  /** Share of strums on a pulse, and half-way between two. */
  readonly onPulse: number;
  readonly betweenPulses: number;
  readonly strength: number;
  /** Strums per pulse. */
  readonly density: number;
}

const LONGEST_LAG = 48;
/** Fewer strums a beat than this are as few. */
const FEWEST_PER_BEAT = 1 / 8;

/**
 * What is struck, and what sounds, at every beat of a pulse: the low end, the body and the edge of the onset strength, strums and new
 * chords; and how well all of it comes back after each number of pulses.
 */
export function readPulse(
  pulse: Pulse,
  strums: readonly MeterStrum[],
  strength: OnsetStrength,
): PulseContent {
  const { timesS } = pulse;
  const { frameRate, curves } = strength;
  const count = timesS.length;
  const streams = new Float32Array(count * STREAMS);
  const roots = new Float32Array(count * ROOTS);
  const curve = pulseCurve(strength);
  let total = 0;
  timesS.forEach((timeS, n) => {
    const frame = Math.round(timeS * frameRate);
    REGIONS.forEach((region, r) => {
      let peak = 0;
      for (let f = frame - 3; f <= frame + 3; f++) peak = Math.max(peak, curves[region][f] ?? 0);
      streams[n * STREAMS + r] = peak;
    });
    let peak = 0;
    for (let f = frame - 2; f <= frame + 2; f++) peak = Math.max(peak, curve[f] ?? 0);
    total += peak;
  });
  let [on, between, last] = [0, 0, 0];
  let at = 0;
  let root: number | null = null;
  for (const strum of strums) {
    while (at + 1 < count && Math.abs(timesS[at + 1] - strum.timeS) <= Math.abs(timesS[at] - strum.timeS))
      at++;
    const gap = (timesS[at + 1] ?? timesS[at] + pulse.periodS) - timesS[at];
    const offS = strum.timeS - timesS[at];
    const isOn = Math.abs(offS) < Math.min(NEAR_S, 0.3 * gap);
    if (isOn) on++;
    else if (Math.abs(Math.abs(offS) - gap / 2) < 0.2 * gap) between++;
    if (isOn) {
      streams[at * STREAMS + STRUM] = Math.max(streams[at * STREAMS + STRUM], strum.probability);
      if (strum.rootPc !== null && root !== null && strum.rootPc !== root) streams[at * STREAMS + CHANGE] = 1;
    }
    if (strum.rootPc !== null) root = strum.rootPc;
    if (root !== null) for (let n = last; n <= at; n++) roots[n * ROOTS + root] = 1;
    last = at;
  }
  for (let s = 0; s < STREAMS; s++) standardise(streams, s, STREAMS);

  const similarity = new Float32Array(LONGEST_LAG + 1);
  const width = STREAMS + ROOTS;
  const rows = Array.from({ length: count }, (_, n) => {
    const row = new Float32Array(width);
    for (let s = 0; s < STREAMS; s++) row[s] = 0.6 * streams[n * STREAMS + s];
    row.set(roots.subarray(n * ROOTS, (n + 1) * ROOTS), STREAMS);
    return row;
  });
  for (let lag = 1; lag <= LONGEST_LAG; lag++) {
    let sum = 0;
    for (let n = lag; n < count; n++) sum += cosineSimilarity(rows[n], rows[n - lag]);
    similarity[lag] = count > lag + 8 ? sum / (count - lag) : 0;
  }
  standardise(similarity, 0, 1);
  return {
    streams,
    repetition: similarity,
    onPulse: on / Math.max(1, strums.length),
    betweenPulses: between / Math.max(1, strums.length),
    strength: total / count,
    density: strums.length / count,
  };
}

function standardise(values: Float32Array, from: number, step: number): void {
  let [sum, squares, count] = [0, 0, 0];
  for (let i = from; i < values.length; i += step, count++) {
    sum += values[i];
    squares += values[i] * values[i];
  }
  const mean = sum / count;
  const deviation = Math.sqrt(Math.max(0, squares / count - mean * mean)) || 1;
  for (let i = from; i < values.length; i += step) values[i] = (values[i] - mean) / deviation;
}

function featuresOf(
  content: PulseContent,
  grouping: Grouping,
  groupingIndex: number,
  phase: number,
  tempoBpm: number,
  firstStruck: number,
): Float32Array {
  const features = new Float32Array(METER_FEATURES);
  const { streams, repetition } = content;
  const bar = grouping.pulses * grouping.beats;
  const count = streams.length / STREAMS;
  // Sums over downbeats, other beats, off-beats; and over the odd beats of even bars, where snares stand.
  const sums = new Float32Array(4 * STREAMS);
  const counts = [0, 0, 0, 0];
  for (let n = 0; n < count; n++) {
    const inBar = (((n - phase) % bar) + bar) % bar;
    const isBeat = inBar % grouping.pulses === 0;
    const which = inBar === 0 ? 0 : isBeat ? 1 : 2;
    counts[which]++;
    for (let s = 0; s < STREAMS; s++) sums[which * STREAMS + s] += streams[n * STREAMS + s];
    if (isBeat && grouping.beats % 2 === 0 && (inBar / grouping.pulses) % 2 === 1) {
      counts[3]++;
      for (let s = 0; s < STREAMS; s++) sums[3 * STREAMS + s] += streams[n * STREAMS + s];
    }
  }
  const mean = (which: number, s: number): number =>
    counts[which] > 0 ? sums[which * STREAMS + s] / counts[which] : 0;
  let at = 0;
  for (let s = 0; s < STREAMS; s++) {
    features[at++] = mean(0, s) - mean(1, s);
    features[at++] = counts[2] > 0 ? mean(1, s) - mean(2, s) : 0;
    features[at++] = counts[3] > 0 ? mean(3, s) - mean(0, s) : 0;
  }
  features[at++] = repetition[bar] ?? 0;
  features[at++] = repetition[2 * bar] ?? 0;
  features[at++] = repetition[4 * bar] ?? 0;
  const octaves = Math.log2(tempoBpm / USUAL_BPM);
  features[at++] = -octaves * octaves;
  features[at++] = -Math.max(0, Math.log2(tempoBpm / FAST_BPM));
  features[at++] = -Math.max(0, Math.log2(SLOW_BPM / tempoBpm));
  features[at++] = content.onPulse;
  features[at++] = content.betweenPulses;
  features[at++] = content.strength;
  features[at++] = Math.log2(Math.max(FEWEST_PER_BEAT, content.density * grouping.pulses));
  features[at++] = firstStruck >= 0 && (firstStruck - phase) % bar === 0 ? 1 : 0;
  features[at + groupingIndex] = 1;
  return features;
}

/** All readings, unordered; empty without a pulse. */
export function enumerateMeters(
  strength: OnsetStrength,
  strums: readonly MeterStrum[],
  durationS: number,
): MeterHypothesis[] {
  const stretches = soundingStretches(strength);
  // Nobody counts through a silence: how a song is counted is read where it sounds for longest.
  const { startS, endS } = stretches.length > 1 ? longestStretch(stretches) : { startS: 0, endS: durationS };
  const inside = strums.filter(({ timeS }) => timeS >= startS - NEAR_S && timeS <= endS + NEAR_S);
  return findPulses(strength, durationS).flatMap((whole) => {
    const from = Math.max(
      0,
      whole.timesS.findIndex((t) => t >= startS - whole.periodS),
    );
    const timesS = whole.timesS.slice(from).filter((t) => t <= endS + whole.periodS);
    const pulse = { ...whole, timesS };
    const content = readPulse(pulse, inside, strength);
    const firstStruck = firstStruckOf(pulse, inside);
    return GROUPINGS.flatMap((grouping, index) => {
      const tempoBpm = tempoOf(pulse, grouping);
      if (tempoBpm < SLOWEST_BPM || tempoBpm > FASTEST_BPM) return [];
      const bar = grouping.pulses * grouping.beats;
      return Array.from({ length: bar }, (_, phase) => ({
        ...{ grouping, tempoBpm, pulse: whole, phase: (from + phase) % bar },
        features: featuresOf(content, grouping, index, phase, tempoBpm, firstStruck),
      }));
    });
  });
}

const tempoOf = ({ periodS }: Pulse, grouping: Grouping): number =>
  60 / (periodS * grouping.pulses * groupedPerTempoBeat(grouping));

/** The pulse that the first strum is on; -1 where it is on none. */
function firstStruckOf({ timesS }: Pulse, strums: readonly MeterStrum[]): number {
  const first = strums[0]?.timeS ?? Infinity;
  return timesS.findIndex((t) => Math.abs(t - first) < NEAR_S);
}

/** The readings of a part of a song whose pulse and grouping are known: one for each pulse that its first downbeat can be on. */
export function downbeatReadings(
  pulse: Pulse,
  strums: readonly MeterStrum[],
  strength: OnsetStrength,
  grouping: Grouping,
): MeterHypothesis[] {
  const content = readPulse(pulse, strums, strength);
  const firstStruck = firstStruckOf(pulse, strums);
  const [index, tempoBpm] = [GROUPINGS.indexOf(grouping), tempoOf(pulse, grouping)];
  return Array.from({ length: grouping.pulses * grouping.beats }, (_, phase) => ({
    ...{ grouping, pulse, phase, tempoBpm },
    features: featuresOf(content, grouping, index, phase, tempoBpm, firstStruck),
  }));
}

/** Beats and bars of a reading, over the whole recording. */
export function gridOfMeter({ grouping, pulse, phase, tempoBpm }: MeterHypothesis): BeatGrid {
  const { pulses, beats, meter } = grouping;
  const bar = pulses * beats;
  const beatsS = pulse.timesS.filter((_, n) => (n - phase + bar) % pulses === 0);
  const downbeatsS = pulse.timesS.filter((_, n) => (n - phase + bar) % bar === 0);
  return { tempoBpm: middleTempo(beatsS, grouping) ?? tempoBpm, meter, beatsS, downbeatsS };
}

/** Beats of the tempo a minute, from the middle half of the beats' lengths; null for fewer than two beats. */
export function middleTempo(beatsS: readonly number[], grouping: Grouping): number | null {
  if (beatsS.length < 2) return null;
  const gaps = beatsS
    .slice(1)
    .map((t, i) => t - beatsS[i])
    .sort((a, b) => a - b);
  const middle = gaps.slice(Math.floor(gaps.length / 4), Math.ceil((3 * gaps.length) / 4));
  const beatS = middle.reduce((s, g) => s + g, 0) / middle.length;
  return 60 / (beatS * groupedPerTempoBeat(grouping));
}
