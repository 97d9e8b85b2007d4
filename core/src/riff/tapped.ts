/**
 * Beats tapped along with a recording. A hand is late or early by habit and scatters; the recording is not: taps go to the attacks
 * that they mean, a missed tap is filled in, and the drift of the band stays. From the tapped stretch the beats can be followed
 * through the rest of the recording by its attacks (a phase-locked loop, as in Large and Kolen 1994, "Resonance and the perception
 * of musical meter", Connection Science 6: phase and period give way to each attack near an expected beat).
 */
import { bisectCenter, median } from 'd3-array';
import { fitLine } from '../units';
import type { BeatGrid, SongDocument } from './document';
import type { Unit } from './enums';
import { barsOfMeter, LEAST_BEAT_S } from './grid';
import { COUNT_LIMITS } from './limits';
import { replaceGrid, type Keeps } from './regrid';

/** Fewer taps say nothing about a tempo. */
const FEWEST_TAPS = 4;
/** A second tap within this share of a beat is the same one, the finger has bounced. */
const SAME_TAP = 0.4;
/** A tap this far from where the taps around it expect one, as a share of a beat, was meant for no beat; so many on each side are asked. */
const STRAY = 0.3;
const STRAY_REACH = 3;
/** An attack within this share of a beat is the one that a tap means, once the habit of the hand is taken out. */
const REACH = 0.2;
/** How far the habit of a hand may reach, seconds: a tenth is much for a practised one. */
const HABIT_S = 0.15;
/** How much phase and period give way to an attack that comes beside the expected beat. */
const PHASE_GAIN = 0.5;
const PERIOD_GAIN = 0.08;
/** An attack farther from the expected beat than this share of it is another one. */
const LOCK = 0.14;

function nearest(onsetsS: readonly number[], timeS: number): number {
  return onsetsS.length === 0 ? Infinity : onsetsS[bisectCenter(onsetsS, timeS)];
}

function gapsOf(timesS: readonly number[]): number[] {
  return timesS.slice(1).map((t, i) => t - timesS[i]);
}

/**
 * Without those that a finger that hesitates, or a page that stands still, puts between the beats: one half a beat late would bend all
 * that follow it. The first, which begins a bar, goes to its beat instead.
 */
function withoutStrays(tapsS: readonly number[], period: number): readonly number[] {
  const steady = tapsS.filter((t, k) => {
    const around = tapsS.slice(Math.max(0, k - STRAY_REACH), k + STRAY_REACH + 1).filter((o) => o !== t);
    const offBeat = around.map((o) => Math.abs((t - o) / period - Math.round((t - o) / period)));
    return (median(offBeat) ?? 0) <= STRAY;
  });
  if (steady.length < FEWEST_TAPS) return tapsS;
  const [first] = steady;
  const before = Math.max(1, Math.round((first - tapsS[0]) / period));
  return first === tapsS[0] ? steady : [first - before * period, ...steady];
}

/** Taps without bounces and strays, and with those that were missed: evenly between their neighbours. */
function completed(tapsS: readonly number[]): number[] {
  const period = median(gapsOf(tapsS)) ?? 0;
  const apart = tapsS.filter((t, i) => i === 0 || t - tapsS[i - 1] > SAME_TAP * period);
  const kept = withoutStrays(apart, period);
  return kept.flatMap((t, i) => {
    const gap = i === 0 ? 0 : t - kept[i - 1];
    const missed = Math.max(0, Math.round(gap / period) - 1);
    return [...Array.from({ length: missed }, (_, k) => kept[i - 1] + (gap * (k + 1)) / (missed + 1)), t];
  });
}

/** Each time on the straight line through its neighbours, so that the scatter goes and the drift stays. */
function evened(timesS: readonly number[]): number[] {
  const reach = 4;
  return timesS.map((t, k) => {
    const [from, to] = [Math.max(0, k - reach), Math.min(timesS.length - 1, k + reach)];
    return to - from < 3 ? t : fitLine(timesS, from, to).at(k);
  });
}

/**
 * The beats that taps mean, ascending; null for fewer than four, or for taps faster than ten a second. `onsetsS`: attacks of the
 * recording, ascending; without any near, the taps are evened out.
 */
export function tappedBeats(tapsS: readonly number[], onsetsS: readonly number[]): number[] | null {
  if (tapsS.length < FEWEST_TAPS) return null;
  const taps = completed(tapsS);
  const period = median(gapsOf(taps)) ?? 0;
  if (taps.length < FEWEST_TAPS || !(period >= LEAST_BEAT_S)) return null;
  const even = evened(taps);
  // What most taps are off by is the habit of the hand, and the way from the sound to the key.
  const misses = even
    .map((t) => nearest(onsetsS, t) - t)
    .filter((m) => Math.abs(m) < Math.min(HABIT_S, period / 3));
  const habit = median(misses) ?? 0;
  const snapped = even.map((t) => {
    const onset = nearest(onsetsS, t + habit);
    return Math.abs(onset - t - habit) < REACH * period
      ? { timeS: onset, isFound: true }
      : { timeS: t + habit, isFound: false };
  });
  const beats = snapped.map((s) => s.timeS);
  // A tap without an attack lies between those that have one.
  const lined = evened(beats);
  return beats.map((t, i) => (snapped[i].isFound ? t : lined[i]));
}

/** Beats followed from one on, until `isOver`, in steps of the period; backwards for a negative one. */
function follow(
  fromS: number,
  periodS: number,
  onsetsS: readonly number[],
  isOver: (timeS: number) => boolean,
): number[] {
  const beats: number[] = [];
  let [at, period] = [fromS, periodS];
  for (;;) {
    const expected = at + period;
    if (isOver(expected) || beats.length > COUNT_LIMITS.beats) return beats;
    const miss = nearest(onsetsS, expected) - expected;
    const isLocked = Math.abs(miss) < LOCK * Math.abs(period);
    at = expected + (isLocked ? PHASE_GAIN * miss : 0);
    period += isLocked ? PERIOD_GAIN * miss : 0;
    beats.push(at);
  }
}

/** Tapped beats carried through the whole recording, from its start to its end; `tapped`: the index of the first tapped one. */
export function followedBeats(
  beatsS: readonly number[],
  onsetsS: readonly number[],
  durationS: number,
): { readonly beatsS: readonly number[]; readonly tapped: number } {
  const period = fitLine(beatsS).slope;
  const before = follow(beatsS[0], -period, onsetsS, (t) => t < 0).reverse();
  const behind = follow(beatsS.at(-1)!, period, onsetsS, (t) => t > durationS);
  return { beatsS: [...before, ...beatsS, ...behind], tapped: before.length };
}

export interface Tapped {
  /** The beats that were meant, see {@link tappedBeats}; the first is the first of a bar. */
  readonly beatsS: readonly number[];
  readonly meter: { readonly beats: number; readonly unit: Unit };
  /** Whether the rest of the song follows them, or keeps its beats. */
  readonly rest: 'keeps' | 'follows';
  readonly onsetsS: readonly number[];
  readonly durationS: number;
}

/** Bars over beats of which one, `first`, begins a bar; before it as many whole ones as fit, and a shorter first one. */
function barsAround(count: number, first: number, { beats, unit }: Tapped['meter']): BeatGrid['bars'] {
  const short = first % beats;
  const pickUp = short > 0 ? [{ beat: 0, beats: short, unit }] : [];
  // The last beat only ends the bar before it.
  return [...pickUp, ...barsOfMeter(short, count - 1, { beats, unit })];
}

/** A grid out of tapped beats alone: those of the song stay where it was not tapped, or give way to them everywhere. */
export function gridFromTaps({ grid }: Pick<SongDocument, 'grid'>, tapped: Tapped): BeatGrid {
  const { beatsS, meter, rest, onsetsS, durationS } = tapped;
  if (rest === 'follows' || grid.bars.length === 0) {
    const all = followedBeats(beatsS, onsetsS, durationS);
    return { beatsS: all.beatsS, bars: barsAround(all.beatsS.length, all.tapped, meter) };
  }
  const period = fitLine(beatsS).slope;
  const [fromS, toS] = [beatsS[0] - period / 2, beatsS.at(-1)! + period / 2];
  const before = grid.beatsS.filter((t) => t < fromS);
  const behind = grid.beatsS.filter((t) => t > toS);
  const barsBefore = grid.bars
    .filter((b) => b.beat < before.length)
    .map((b) => ({ ...b, beats: Math.min(b.beats, before.length - b.beat) }));
  const tappedEnd = before.length + beatsS.length;
  const by = tappedEnd - (grid.beatsS.length - behind.length);
  const whole = grid.bars.filter((b) => b.beat + by >= tappedEnd).map((b) => ({ ...b, beat: b.beat + by }));
  // The tapped bars reach to the next bar line that is kept, or to the last tap.
  const until = whole[0]?.beat ?? tappedEnd - 1;
  return {
    beatsS: [...before, ...beatsS, ...behind],
    bars: [...barsBefore, ...barsOfMeter(before.length, until, meter), ...whole],
  };
}

/** Lays tapped beats under the song. */
export function layTapped(document: SongDocument, tapped: Tapped, keeps: Keeps = 'sound'): SongDocument {
  return replaceGrid(document, gridFromTaps(document, tapped), keeps);
}
