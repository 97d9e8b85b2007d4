/** Draws from a seeded generator. */
import { gaussian, type Random } from '@wild-needle/core/units';

export interface Chance {
  readonly random: Random;
  uniform(low: number, high: number): number;
  /** Uniform on a logarithmic scale. */
  logUniform(low: number, high: number): number;
  /** Whole number from low to high, both included. */
  whole(low: number, high: number): number;
  normal(mean: number, deviation: number): number;
  yes(probability: number): boolean;
  pick<T>(from: readonly T[]): T;
  /** By weight; the second of each pair. */
  weighted<T>(from: readonly (readonly [T, number])[]): T;
}

export function createChance(random: Random): Chance {
  const chance: Chance = {
    random,
    uniform: (low, high) => low + (high - low) * random(),
    logUniform: (low, high) => Math.exp(chance.uniform(Math.log(low), Math.log(high))),
    whole: (low, high) => Math.min(high, Math.floor(chance.uniform(low, high + 1))),
    normal: (mean, deviation) => mean + deviation * gaussian(random),
    yes: (probability) => random() < probability,
    pick: (from) => from[chance.whole(0, from.length - 1)],
    weighted: (from) => {
      let left = random() * from.reduce((sum, [, weight]) => sum + weight, 0);
      for (const [value, weight] of from) {
        left -= weight;
        if (left < 0) return value;
      }
      return from[from.length - 1][0];
    },
  };
  return chance;
}
