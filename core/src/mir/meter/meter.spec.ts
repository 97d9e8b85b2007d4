import { describe, expect, it } from 'vitest';
import { gridOfMeter, type MeterHypothesis } from './meter';
import { computeOnsetStrength } from '../onsets/onset-strength';
import { findPulses } from './pulse';

const eighths = Array.from({ length: 43 }, (_, n) => 0.1 + 0.25 * n);

function reading(pulses: number, beats: number, unit: number, phase = 0): MeterHypothesis {
  const meter = unit === 8 ? { beats: pulses * beats, unit } : { beats, unit };
  return {
    grouping: { pulses, beats, meter },
    pulse: { periodS: 0.25, timesS: eighths },
    phase,
    tempoBpm: 0,
    features: new Float32Array(0),
  };
}

describe('a reading of the meter', () => {
  it('groups eighths into quarters and bars of four', () => {
    const { tempoBpm, beatsS, downbeatsS } = gridOfMeter(reading(2, 4, 4));
    expect(tempoBpm).toBeCloseTo(120, 6);
    expect(beatsS.slice(0, 3)).toEqual([0.1, 0.6, 1.1]);
    expect(downbeatsS[1] - downbeatsS[0]).toBeCloseTo(2, 9);
  });

  it('counts dotted quarters in six eighths, and eighths in seven', () => {
    const six = gridOfMeter(reading(3, 2, 8));
    expect(six.tempoBpm).toBeCloseTo(80, 6);
    expect(six.downbeatsS[1] - six.downbeatsS[0]).toBeCloseTo(1.5, 9);
    const seven = gridOfMeter(reading(1, 7, 8));
    expect(seven.tempoBpm).toBeCloseTo(120, 6);
    expect(seven.downbeatsS[1] - seven.downbeatsS[0]).toBeCloseTo(1.75, 9);
  });

  it('keeps the beats before the first one', () => {
    const { beatsS, downbeatsS } = gridOfMeter(reading(2, 4, 4, 6));
    expect(downbeatsS[0]).toBeCloseTo(0.1 + 6 * 0.25, 9);
    expect(beatsS[0]).toBeCloseTo(0.1, 9);
  });
});

describe('the pulse', () => {
  it('is found up to the slowest, and looked for around it', () => {
    const rate = 22050;
    const slowestS = 65.6 / (rate / 220);
    const out = new Float32Array(40 * rate);
    for (let t = 0.3; t < 39; t += slowestS) {
      const start = Math.round(t * rate);
      for (let n = 0; n < 500; n++) out[start + n] += 0.5 * Math.sin(n * 0.3) * Math.exp(-n / 90);
    }
    const periods = findPulses(computeOnsetStrength(out, rate), 40).map((pulse) => pulse.periodS);
    expect(Math.min(...periods.map((periodS) => Math.abs(periodS - slowestS)))).toBeLessThan(0.01);
  });

  it('is followed while the band speeds up by a tenth', () => {
    const rate = 22050;
    const out = new Float32Array(24 * rate);
    const truth: number[] = [];
    for (let t = 0.3, step = 0.3; t < 23; t += step, step *= 0.9987) {
      truth.push(t);
      const start = Math.round(t * rate);
      for (let n = 0; n < 500; n++) out[start + n] += 0.5 * Math.sin(n * 0.3) * Math.exp(-n / 90);
    }
    const pulses = findPulses(computeOnsetStrength(out, rate), 24);
    const misses = pulses.map(({ timesS }) => {
      const near = truth.slice(2, -2).map((t) => Math.min(...timesS.map((p) => Math.abs(p - t))));
      return near.reduce((s, v) => s + v, 0) / near.length;
    });
    expect(Math.min(...misses)).toBeLessThan(0.015);
  });
});
