import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import { randomLayer } from '../net/test-weights';
import { METER_FEATURES, type MeterHypothesis } from './meter';
import meterWeights from './meter.json';
import { downbeatEvidence, scoreMeters, type MeterWeights } from './score-meters';

const reading = (value: number, tempoBpm = 120): MeterHypothesis => ({
  grouping: { pulses: 2, beats: 4, meter: { beats: 4, unit: 4 } },
  pulse: { periodS: 0.25, timesS: [] },
  phase: 0,
  tempoBpm,
  features: new Float32Array(METER_FEATURES).fill(value),
});
/** One unit that sums its inputs times a half, and answers with `answer` times that. */
const member = (answer: number): MeterWeights['members'][number] => {
  const sum = { inputs: METER_FEATURES, outputs: 1, scales: [0.5], biases: [0] };
  const ones = btoa('\u0001'.repeat(METER_FEATURES));
  const pass = { inputs: 1, outputs: 1, weights: btoa('\u0001'), scales: [answer], biases: [0] };
  return { hidden: { ...sum, weights: ones }, output: pass };
};
const WEIGHTS: MeterWeights = {
  means: new Array<number>(METER_FEATURES).fill(1),
  deviations: new Array<number>(METER_FEATURES).fill(2),
  members: [member(1), member(3)],
};
declare function btoa(text: string): string;

describe('the scores of readings', () => {
  it('are the mean of what the networks say of features in deviations from their means', () => {
    // (5 - 1) / 2 = 2 of each feature, halved and summed; under the mean the unit is silent.
    const said = ((1 + 3) / 2) * METER_FEATURES;
    expect([...scoreMeters([reading(5), reading(0)], WEIGHTS)]).toEqual([said, 0]);
    expect(scoreMeters([], WEIGHTS)).toHaveLength(0);
  });

  it('fall where nobody counts that fast', () => {
    const scores = scoreMeters(
      [70, 190, 240].map((bpm) => reading(0, bpm)),
      WEIGHTS,
    );
    expect([...scores.slice(0, 2)]).toEqual([0, 0]);
    expect(scores[2]).toBeLessThan(-3);
  });

  it('say what is wrong with weights of other features', () => {
    const hidden = randomLayer(METER_FEATURES + 1, 4, 0.1, createRandom(1));
    const other = { ...WEIGHTS, members: [{ hidden, output: hidden }] };
    expect(() => scoreMeters([reading(0)], other)).toThrow(/must read 32 features/);
  });

  it('come from weights that are all there', () => {
    const { means, deviations, members } = meterWeights;
    expect([means, deviations].map((w) => w.length)).toEqual(new Array(2).fill(METER_FEATURES));
    expect(members.every(({ output }) => output.outputs === 1)).toBe(true);
    expect(deviations.every((d) => d > 0)).toBe(true);
  });
});

describe('what speaks for a downbeat', () => {
  it('is most of all a new chord and the low end', () => {
    const at = (stream: number): number => {
      const streams = Float32Array.from({ length: 5 }, (_, s) => (s === stream ? 1 : 0));
      const rest = { repetition: streams, onPulse: 0, betweenPulses: 0, strength: 0, density: 0 };
      return downbeatEvidence({ streams, ...rest })[0];
    };
    const [low, body, edge, strum, change] = [0, 1, 2, 3, 4].map(at);
    expect(Math.min(low, change)).toBeGreaterThan(Math.max(body, edge, strum));
    expect(Math.min(body, edge, strum)).toBeGreaterThan(0);
  });

  it('adds up at each pulse for itself', () => {
    const streams = Float32Array.of(1, 0, 0, 2, 0, -1, 0, 0, 0, 0);
    const rest = { repetition: streams, onPulse: 0, betweenPulses: 0, strength: 0, density: 0 };
    const [first, second] = downbeatEvidence({ streams, ...rest });
    expect(first).toBeCloseTo(0.89 + 2 * 0.42, 5);
    expect(second).toBeCloseTo(-0.89, 5);
  });
});
