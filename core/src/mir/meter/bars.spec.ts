import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import { placeBars, type BarLayout } from './bars';
import { findFreeTime } from './free-time';
import type { MeterStrum } from './meter';
import { computeOnsetStrength } from '../onsets/onset-strength';
import { rankMeters } from './rank-meters';
import { addChord, addClick, RATE } from '../test-sounds';
import meterWeights from './meter.json';

const ROOTS = [40, 43, 45, 47];

/** Chords at these times, a new one at each of `downbeatsS` with a low drum. */
function hear(timesS: readonly number[], downbeatsS: readonly number[], seconds: number): BarLayout {
  const out = new Float32Array(seconds * RATE);
  const strums = timesS.map((timeS, i): MeterStrum => {
    const root = ROOTS[downbeatsS.filter((one) => one <= timeS + 0.01).length % ROOTS.length];
    addChord(out, timeS, (timesS[i + 1] ?? seconds - 1) - timeS - 0.01, [root, root + 7]);
    return { timeS, rootPc: root % 12, probability: 1 };
  });
  for (const timeS of downbeatsS) {
    addChord(out, timeS, 0.15, [28]);
    addClick(out, timeS);
  }
  const strength = computeOnsetStrength(out, RATE);
  const { reading } = rankMeters(strength, strums, seconds, meterWeights)!;

  return placeBars(reading, strums, strength, seconds, meterWeights);
}

const every = (stepS: number, fromS: number, toS: number): number[] =>
  Array.from({ length: Math.floor((toS - fromS) / stepS) }, (_, i) => fromS + i * stepS);

describe('free time', () => {
  it('is found between two passages that keep time, and has no beats', () => {
    const random = createRandom(2);
    const free: number[] = [];
    for (let t = 20.5; t < 35; t += 0.35 + 1.2 * random()) free.push(t);
    const again = free[free.length - 1] + 1;
    const timesS = [...every(0.25, 0.5, 20.4), ...free, ...every(0.25, again, again + 20)];
    const downbeats = [...every(2, 0.5, 20), ...every(2, again, again + 19)];
    const { freeTime, beatsS, downbeatsS } = hear(timesS, downbeats, 58);
    expect(freeTime).toHaveLength(1);
    expect(freeTime[0].startS).toBeGreaterThan(18);
    expect(freeTime[0].startS).toBeLessThan(30);
    expect(freeTime[0].endS).toBeGreaterThan(32);
    expect(freeTime[0].endS).toBeLessThan(again + 3);
    const inside = (t: number): boolean => t > freeTime[0].startS && t < freeTime[0].endS - 0.1;
    expect(beatsS.some(inside)).toBe(false);
    expect(downbeatsS.some(inside)).toBe(false);
  });

  it('is none where the tempo only drifts', () => {
    const timesS = Array.from({ length: 120 }, (_, i) => 0.5 + 0.25 * i * (1 + 0.0004 * i));
    const strums = timesS.map((timeS) => ({ timeS, rootPc: 4, probability: 1 }));
    expect(findFreeTime(strums, { periodS: 0.25, timesS }, 35)).toEqual([]);
  });

  it('is none in fast sixteenths of a band that speeds up and slows down', () => {
    // Eighths at 192 bpm, 1.5 % faster and slower within half a minute.
    const swayed = (n: number): number => 0.156 * n + 0.05 * Math.sin((2 * Math.PI * n) / 150);
    const timesS = Array.from({ length: 256 }, (_, n) => 0.5 + swayed(n));
    const sixteenths = timesS.flatMap((t, n) => [t, (t + (timesS[n + 1] ?? t + 0.156)) / 2]);
    const strums = sixteenths.map((timeS) => ({ timeS, rootPc: 4, probability: 1 }));
    expect(findFreeTime(strums, { periodS: 0.156, timesS }, 41)).toEqual([]);
  });

  it('is none where the followed pulse slipped and the strums count on', () => {
    const strums = every(0.25, 0.5, 40).map((timeS) => ({ timeS, rootPc: 4, probability: 1 }));
    // It wanders by half a pulse and back.
    const timesS = every(0.25, 0.5, 40).map((t) => t + 0.125 * Math.sin(t / 2));
    expect(findFreeTime(strums, { periodS: 0.25, timesS }, 40)).toEqual([]);
  });
});

describe('a silence', () => {
  it('breaks the count: after it beats and bars are where the band plays them', () => {
    // Not a whole number of beats long.
    const again = 20.5 + 7.3;
    const timesS = [...every(0.25, 0.5, 20.4), ...every(0.25, again, again + 16)];
    const downbeats = [...every(2, 0.5, 20), ...every(2, again, again + 15)];
    const { beatsS, downbeatsS, freeTime } = hear(timesS, downbeats, 46);
    expect(freeTime).toEqual([]);
    const isNear = (found: readonly number[], timeS: number): boolean =>
      found.some((t) => Math.abs(t - timeS) < 0.07);
    const missed = downbeats.filter((one) => one < 42 && !isNear(downbeatsS, one));
    expect(missed).toEqual([]);
    const beats = [...every(0.5, 0.5, 20), ...every(0.5, again, again + 14)];
    expect(beats.filter((t) => !isNear(beatsS, t))).toEqual([]);
  });
});

describe('bars', () => {
  it('follow a tempo that rises', () => {
    const timesS = Array.from({ length: 128 }, (_, i) => 0.5 + 0.27 * i - 0.0002 * i * i);
    const { downbeatsS } = hear(
      timesS,
      timesS.filter((_, i) => i % 8 === 0),
      34,
    );
    const lengths = downbeatsS.slice(1).map((t, i) => t - downbeatsS[i]);
    expect(lengths[1] / lengths[lengths.length - 2]).toBeGreaterThan(1.1);
    expect(lengths.every((l, i) => i === 0 || l < lengths[i - 1] / 0.95)).toBe(true);
  });
});
