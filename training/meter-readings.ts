/** Generated songs as the meter is learned from them: all readings of their pulse, by true strums with made-up faults, and which are right. */
import {
  computeStrengths,
  enumerateMeters,
  gridOfMeter,
  splitStereo,
  type MeterHypothesis,
  type MeterStrum,
} from '@wild-needle/core/mir';
import { createRandom, type Random } from '@wild-needle/core/units';
import type { Truth } from './material/song';
import { readSong } from './songs';

/** Strums are found with faults: this share is missed, has another root, or stands a little off. */
const MISSED = 0.06;
const MISNAMED = 0.06;
const NEAR_S = 0.07;

export interface SongReadings {
  readonly readings: readonly MeterHypothesis[];
  readonly isRight: readonly boolean[];
}

function f1(found: readonly number[], truth: readonly number[]): number {
  let at = 0;
  let hits = 0;
  for (const t of truth) {
    while (at < found.length && found[at] < t - NEAR_S) at++;
    if (at < found.length && found[at] <= t + NEAR_S) {
      hits++;
      at++;
    }
  }
  return (2 * hits) / Math.max(1, found.length + truth.length);
}

function strumsOf(truth: Truth, random: Random): MeterStrum[] {
  return truth.strums
    .filter(() => random() > MISSED)
    .map((s) => ({
      timeS: s.timeS + 0.008 * (random() - 0.5),
      rootPc: s.rootPc !== null && random() < MISNAMED ? Math.floor(12 * random()) : s.rootPc,
      probability: 0.9,
    }));
}

function read(seed: number, random: Random): SongReadings {
  const { signal, truth } = readSong(seed);
  const strength = computeStrengths(splitStereo(signal), signal.sampleRate).all;
  const durationS = signal.channels[0].length / signal.sampleRate;
  const readings = enumerateMeters(strength, strumsOf(truth, random), durationS);
  const [first, last] = [truth.barsS[0] - 0.3, truth.barsS[truth.barsS.length - 1] + 0.3];
  const isRight = readings.map((reading) => {
    const { downbeatsS, meter, tempoBpm } = gridOfMeter(reading);
    const inside = downbeatsS.filter((t) => t > first && t < last);
    const sameMeter = meter.beats === truth.meter.beats && meter.unit === truth.meter.unit;
    const bpm = truth.meter.unit === 8 && truth.meter.beats === 6 ? truth.bpm / 1.5 : truth.bpm;
    return sameMeter && Math.abs(tempoBpm / bpm - 1) < 0.06 && f1(inside, truth.barsS) > 0.9;
  });
  return { readings, isRight };
}

/** Faults are drawn one song after the other: the same songs in the same order have the same. */
export function readReadings(seeds: readonly number[]): SongReadings[] {
  const random = createRandom(3);
  return seeds.map((seed) => read(seed, random));
}

export const hasRight = ({ isRight }: SongReadings): boolean => isRight.includes(true);
