import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import type { LayerWeights } from '../net/network';
import { randomLayer } from '../net/test-weights';
import { STROKE_FEATURES } from './stroke-features';
import { chooseStrokes, createStrokeNetwork, type StrokeNetworkWeights } from './stroke-classifier';
import { strokeProbability, type StrokeProbabilities } from './stroke-kinds';

const random = createRandom(8);
const layer = (inputs: number, outputs: number): LayerWeights => randomLayer(inputs, outputs, 0.001, random);
const member = (): StrokeNetworkWeights => ({ hidden: layer(STROKE_FEATURES, 5), output: layer(5, 4) });

describe('the stroke networks', () => {
  it('answer by the mean of what each says', () => {
    const members = [member(), member(), member()];
    const features = Float32Array.from({ length: 2 * STROKE_FEATURES }, () => 2 * random() - 1);
    const alone = members.map((one) => createStrokeNetwork({ members: [one] })(features));
    createStrokeNetwork({ members })(features).forEach((together, k) => {
      const mean = (of: keyof StrokeProbabilities): number =>
        alone.reduce((sum, answers) => sum + answers[k][of], 0) / members.length;
      expect(together.ring).toBeCloseTo(mean('ring'), 6);
      expect(together.palmMute).toBeCloseTo(mean('palmMute'), 6);
      expect(together.dead).toBeCloseTo(mean('dead'), 6);
      expect(strokeProbability(together)).toBeLessThan(1);
    });
  });

  it('are refused without a member', () => {
    expect(() => createStrokeNetwork({ members: [] })).toThrow('must have a member');
  });

  it('refuse weights that were trained on other features', () => {
    const odd = { hidden: layer(9, 5), output: layer(5, 4) };
    expect(() => createStrokeNetwork({ members: [odd] })).toThrow('trained on 9');
  });
});

describe('the choice of strokes', () => {
  const ring = (p: number): StrokeProbabilities => ({ ring: p, palmMute: 0, dead: 0 });

  it('takes what is likely, and of two that are too close the surer', () => {
    expect(chooseStrokes([1, 2, 2.03, 3], [ring(0.9), ring(0.5), ring(0.7), ring(0.1)])).toEqual([0, 2]);
  });
});
