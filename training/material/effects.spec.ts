import { describe, expect, it } from 'vitest';
import { createRandom } from '@wild-needle/core/units';
import { createChance, type Chance } from './chance';
import { chorus, echo, throughMicrophones, wow } from './effects';
import { SAMPLE_RATE } from './rates';

const chance = (seed: number): Chance => createChance(createRandom(seed));
const SEEDS = [1, 2, 3, 4, 5, 6];
const tone = Float32Array.from({ length: SAMPLE_RATE }, (_, n) =>
  Math.sin((2 * Math.PI * 440 * n) / SAMPLE_RATE),
);
const level = (samples: Float32Array): number =>
  Math.sqrt(samples.reduce((sum, v) => sum + v * v, 0) / samples.length);

/** Frequencies between zeros that are crossed upwards. */
function frequencies(samples: Float32Array): number[] {
  const crossings: number[] = [];
  for (let n = 1; n < samples.length; n++) {
    if (samples[n - 1] < 0 && samples[n] >= 0) crossings.push(n - samples[n] / (samples[n] - samples[n - 1]));
  }
  return crossings.slice(1).map((at, i) => SAMPLE_RATE / (at - crossings[i]));
}

describe('effects', () => {
  it.each(SEEDS)('repeat an impulse, softer each time (%i)', (seed) => {
    const impulse = new Float32Array(2 * SAMPLE_RATE);
    impulse[0] = 1;
    const out = echo(impulse, 0.4, chance(seed));
    expect(out[0]).toBeGreaterThan(0.99);
    const first = out.findIndex((v, n) => n > 100 && Math.abs(v) > 1e-4);
    expect(first).toBeGreaterThan(0.06 * SAMPLE_RATE);
    expect(level(out.subarray(first, 2 * first))).toBeGreaterThan(level(out.subarray(2 * first, 3 * first)));
  });

  it.each(SEEDS)('move the pitch of a tape by some cents (%i)', (seed) => {
    const cents = frequencies(wow(tone, chance(seed)))
      .slice(2)
      .map((hz) => Math.abs(1200 * Math.log2(hz / 440)));
    const most = Math.max(...cents);
    expect(most).toBeGreaterThan(0.3);
    expect(most).toBeLessThan(8);
  });

  it.each(SEEDS)('change the sound and not the time (%i)', (seed) => {
    for (const effect of [chorus, throughMicrophones]) {
      const out = effect(tone, chance(seed));
      expect(out).toHaveLength(tone.length);
      expect(level(out)).toBeGreaterThan(0.05);
      expect(level(out)).toBeLessThan(5);
    }
  });
});
