import { describe, expect, it } from 'vitest';
import { createRandom } from '@wild-needle/core/units';
import { drawAmplifier, drive } from './amplifier-chain';
import { createChance } from './chance';
import { drawStyle, renderTake, type PlayerStyle, type TimedStrum } from './guitar-take';
import { addRoom, addStem, master, placed } from './mixing';
import { SAMPLE_RATE } from './rates';

const chance = (seed: number) => createChance(createRandom(seed));
/** Exact hands: what is tested is the sound, not its scatter. */
const STYLE: PlayerStyle = {
  ...drawStyle(chance(1), null, null, 0),
  scatterS: 0,
  dynamics: 0,
  pickGain: 0.02,
  muteGain: 1,
  muteDecayS: 0.05,
  muteCutHz: 800,
};
const strum = (timeS: number, marks: Partial<TimedStrum> = {}): TimedStrum => ({
  timeS,
  endS: timeS + 0.9,
  midi: [40, 47],
  palmMute: false,
  dead: false,
  legato: false,
  ...marks,
});
const level = (samples: Float32Array, fromS: number, toS: number): number => {
  const part = samples.subarray(Math.round(fromS * SAMPLE_RATE), Math.round(toS * SAMPLE_RATE));
  return Math.sqrt(part.reduce((s, v) => s + v * v, 0) / part.length);
};
const take = (strums: readonly TimedStrum[]): Float32Array => renderTake(strums, 3, STYLE, 0, chance(2));

describe('a take', () => {
  it('is silent before its first strum and after its last', () => {
    const samples = take([strum(1)]);
    expect(level(samples, 0, 0.95)).toBe(0);
    expect(level(samples, 1.05, 1.5)).toBeGreaterThan(0.01);
    expect(level(samples, 2.5, 3)).toBeLessThan(0.001);
  });

  it('takes the sound of a palm mute away, and leaves that of a ringing strum', () => {
    const samples = take([strum(0.2), strum(1.5, { palmMute: true })]);
    const fall = (at: number): number =>
      level(samples, at + 0.3, at + 0.4) / level(samples, at + 0.02, at + 0.1);
    expect(fall(1.5)).toBeLessThan(0.1);
    expect(fall(0.2)).toBeGreaterThan(0.3);
  });

  it('makes a dead stroke a short click', () => {
    const samples = take([strum(0.2), strum(1.5, { dead: true, midi: [] })]);
    expect(level(samples, 1.5, 1.53)).toBeGreaterThan(0.003);
    expect(level(samples, 1.8, 2)).toBeLessThan(0.001);
  });

  it('is the same for the same seed', () => {
    expect(take([strum(0.5)])).toEqual(take([strum(0.5)]));
  });
});

describe('amplifiers', () => {
  it('stay finite and bounded, whatever is drawn', () => {
    const strings = take([strum(0.1), strum(1, { palmMute: true }), strum(1.4)]).subarray(0, SAMPLE_RATE);
    for (let seed = 0; seed < 8; seed++) {
      const out = drive(strings, drawAmplifier(chance(seed)), chance(seed));
      expect(out).toHaveLength(strings.length);
      expect(out.every((v) => Number.isFinite(v) && Math.abs(v) < 40)).toBe(true);
      expect(level(out, 0.2, 0.8)).toBeGreaterThan(0);
    }
  });
});

describe('mixing', () => {
  const tone = Float32Array.from({ length: SAMPLE_RATE }, (_, n) => Math.sin(n * 0.02));

  it('places with constant power', () => {
    for (const pan of [-1, -0.3, 0, 0.8, 1]) {
      const [left, right] = placed(tone, pan);
      expect(left[100] ** 2 + right[100] ** 2).toBeCloseTo(tone[100] ** 2, 6);
    }
  });

  it('brings stems to the level that is asked for', () => {
    const mix = [new Float32Array(SAMPLE_RATE), new Float32Array(SAMPLE_RATE)] as const;
    addStem(mix, [tone, tone], -20);
    expect(20 * Math.log10(level(mix[0], 0, 1))).toBeCloseTo(-20, 0);
  });

  it('lets a room ring on and fade', () => {
    const click = new Float32Array(2 * SAMPLE_RATE);
    click[100] = 1;
    const [left] = addRoom([click, click], 0.3, 0.3, chance(5));
    expect(level(left, 0.05, 0.15)).toBeGreaterThan(5 * level(left, 0.6, 0.7));
    expect(left.every((v) => Math.abs(v) < 1.5)).toBe(true);
  });

  it('never masters over full scale', () => {
    for (let seed = 0; seed < 6; seed++) {
      const loud = tone.map((v) => 5 * v);
      expect(master([loud, tone], chance(seed))[0].every((v) => Math.abs(v) <= 1)).toBe(true);
    }
  });
});
