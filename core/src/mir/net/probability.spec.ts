import { describe, expect, it } from 'vitest';
import { logAdd, logistic, logOdds, softmax } from './probability';

describe('probabilities', () => {
  it('sum to one, also for logits that would overflow', () => {
    const values = Float32Array.from([1000, 1000, 800]);
    softmax(values);
    expect([...values]).toEqual([0.5, 0.5, 0]);
  });

  it('are added as logarithms, nothing to nothing too', () => {
    expect(Math.exp(logAdd(Math.log(0.2), Math.log(0.3)))).toBeCloseTo(0.5, 12);
    expect(logAdd(-Infinity, Math.log(0.3))).toBeCloseTo(Math.log(0.3), 12);
    expect(logAdd(-Infinity, -Infinity)).toBe(-Infinity);
  });

  it.each([0.001, 0.3, 0.5, 0.97])('come back from their log-odds: %f', (p) => {
    expect(logistic(logOdds(p, 0))).toBeCloseTo(p, 12);
  });

  it('stay finite at both ends', () => {
    expect(logOdds(0, 1e-6)).toBeCloseTo(-Math.log(1e6), 4);
    expect(logOdds(1, 1e-6)).toBeCloseTo(Math.log(1e6), 4);
  });
});
