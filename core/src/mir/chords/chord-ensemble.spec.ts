import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import { createChordEnsemble } from './chord-ensemble';
import { createChordNetwork, type ChordNetworkWeights } from './chord-network';
import { SPECTRUM_SIZE } from './chord-spectrum';
import { randomChordNetwork } from './test-network';

const random = createRandom(5);
const member = (): ChordNetworkWeights => randomChordNetwork(0.002, random);
const spectrum = Float32Array.from({ length: SPECTRUM_SIZE }, () => random() - 0.5);

describe('an ensemble of chord networks', () => {
  const [one, other] = [member(), member()];
  const [a, b] = [one, other].map((weights) => createChordNetwork(weights)(spectrum, null));

  it('answers as its only member', () => {
    const { logProbabilities } = createChordEnsemble({ members: [one] })(spectrum, null);
    logProbabilities.forEach((log, c) => expect(log).toBeCloseTo(a.logProbabilities[c], 4));
  });

  it('answers between two, in probabilities that add up to 1', () => {
    const together = createChordEnsemble({ members: [one, other] })(spectrum, null);
    const { logProbabilities } = together;
    expect(logProbabilities.reduce((sum, log) => sum + Math.exp(log), 0)).toBeCloseTo(1, 4);
    // The odds of any two readings are the geometric mean of those of the members.
    const odds = (logs: Float32Array): number => logs[40] - logs[400];
    const mean = (odds(a.logProbabilities) + odds(b.logProbabilities)) / 2;
    expect(odds(logProbabilities)).toBeCloseTo(mean, 4);
    together.activation(45).forEach((share, i) => {
      expect(share).toBeCloseTo((a.activation(45)[i] + b.activation(45)[i]) / 2, 5);
    });
  });

  it('is refused without a member', () => {
    expect(() => createChordEnsemble({ members: [] })).toThrow('must have a member');
  });
});
