import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import { computeOnsetStrength } from '../onsets/onset-strength';
import { addChord, addClick, RATE } from '../test-sounds';
import { gridOfMeter, METER_FEATURES, type MeterHypothesis, type MeterStrum } from './meter';
import meterWeights from './meter.json';
import { rankMeters } from './rank-meters';
import { scoreMeters } from './score-meters';

describe('tempo, meter and bars', () => {
  /** Kick on the first beat of each bar, clicks on all; strums on the beats with a new chord per bar. */
  function clickTrack(bpm: number, beatsPerBar: number): { out: Float32Array; strums: MeterStrum[] } {
    const random = createRandom(5);
    const out = new Float32Array(24 * RATE);
    const strums: MeterStrum[] = [];
    const period = 60 / bpm;
    for (let i = 0; 0.4 + i * period < 23; i++) {
      const timeS = 0.4 + i * period;
      addClick(out, timeS, random);
      addClick(out, timeS + period / 2, random);
      if (i % beatsPerBar === 0) addChord(out, timeS, 0.2, [28]);
      strums.push({ timeS, rootPc: [4, 9, 7, 11][Math.floor(i / beatsPerBar) % 4], probability: 1 });
    }
    return { out, strums };
  }

  it.each([
    [90, 4],
    [120, 4],
    [150, 4],
    [120, 3],
  ])('follows %i bpm in bars of %i', (bpm, beatsPerBar) => {
    const { out, strums } = clickTrack(bpm, beatsPerBar);
    const ranked = rankMeters(computeOnsetStrength(out, RATE), strums, 24, meterWeights);
    const grid = ranked && gridOfMeter(ranked.reading);
    expect(grid?.tempoBpm).toBeGreaterThan(bpm * 0.98);
    expect(grid?.tempoBpm).toBeLessThan(bpm * 1.02);
    expect(grid?.meter.beats).toBe(beatsPerBar);
    const bar = (60 / bpm) * beatsPerBar;
    for (const downbeat of grid?.downbeatsS.slice(1, -1) ?? []) {
      const miss = Math.abs((downbeat - 0.4) / bar - Math.round((downbeat - 0.4) / bar)) * bar;
      expect(miss).toBeLessThan(0.03);
    }
    const all = ranked?.alternatives ?? [];
    const shares = all.map((a) => a.probability);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    // Half or double of it stays, however unlikely.
    const octaves = all.filter((a) => Math.abs(Math.abs(Math.log2(a.tempoBpm / bpm)) - 1) < 0.06);
    expect(octaves.length).toBeGreaterThan(0);
  });

  it.each([40, 260])('keeps %i bpm among the readings of nothing but quarter notes', (bpm) => {
    const out = new Float32Array(24 * RATE);
    const strums: MeterStrum[] = [];
    for (let i = 0; 0.4 + (60 / bpm) * i < 23.5; i++) {
      const timeS = 0.4 + (60 / bpm) * i;
      addChord(out, timeS, 0.2, [[28, 33][Math.floor(i / 4) % 2]]);
      strums.push({ timeS, rootPc: [4, 9][Math.floor(i / 4) % 2], probability: 1 });
    }
    const ranked = rankMeters(computeOnsetStrength(out, RATE), strums, 24, meterWeights);
    const tempi = ranked?.alternatives.map((a) => a.tempoBpm) ?? [];
    expect(Math.min(...tempi.map((t) => Math.abs(t / bpm - 1)))).toBeLessThan(0.04);
  });

  it('takes a fast waltz for one in three, not for six eighths in two', () => {
    const reading = (tempoBpm: number, beats: number, unit: 4 | 8): MeterHypothesis => ({
      grouping: { pulses: unit === 8 ? 3 : 2, beats: unit === 8 ? 2 : beats, meter: { beats, unit } },
      pulse: { periodS: 0.3, timesS: [] },
      phase: 0,
      tempoBpm,
      features: new Float32Array(METER_FEATURES),
    });
    const odds = (a: MeterHypothesis, b: MeterHypothesis): number => {
      const [one, other] = scoreMeters([a, b], meterWeights);
      return one - other;
    };
    // The same bars; all that was measured being equal.
    expect(odds(reading(180, 3, 4), reading(120, 6, 8))).toBeGreaterThan(1);
    expect(odds(reading(108, 3, 4), reading(72, 6, 8))).toBeLessThan(1);
    // And beats of a quarter of a second for half as many.
    expect(odds(reading(112, 4, 4), reading(224, 4, 4))).toBeGreaterThan(2);
  });

  it('has no reading of a moment of sound', () => {
    expect(rankMeters(computeOnsetStrength(new Float32Array(RATE), RATE), [], 1, meterWeights)).toBeNull();
  });
});
