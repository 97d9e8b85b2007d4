import { describe, expect, it } from 'vitest';
import { applyLayer, readLayer, softmax } from './network';
import { chooseStrokes } from './strokes';

const LAYER = { inputs: 2, outputs: 2, weights: [1, 2, -3, 4], scales: [0.5, 0.25], biases: [0.1, -1] };

describe('layers', () => {
  it('weigh their inputs row by row', () => {
    const out = new Float32Array(2);
    applyLayer(readLayer(LAYER), Float32Array.of(2, 1), 1, out, false);
    // 0.5 * (1 * 2 + 2 * 1) + 0.1 and 0.25 * (-3 * 2 + 4 * 1) - 1
    expect(out[0]).toBeCloseTo(2.1, 6);
    expect(out[1]).toBeCloseTo(-1.5, 6);
    applyLayer(readLayer(LAYER), Float32Array.of(2, 1), 1, out, true);
    expect(out[1]).toBe(0);
  });

  it('answer the same for one row, for four and for five, with an odd count of outputs', () => {
    const layer = {
      inputs: 3,
      outputs: 3,
      weights: Float32Array.from({ length: 9 }, (_, i) => Math.cos(i)),
      biases: Float32Array.of(0.1, -0.2, 0.3),
    };
    const input = Float32Array.from({ length: 15 }, (_, i) => Math.sin(i));
    const all = new Float32Array(15);
    applyLayer(layer, input, 5, all, true);
    const one = new Float32Array(3);
    for (let r = 0; r < 5; r++) {
      applyLayer(layer, input.subarray(3 * r, 3 * r + 3), 1, one, true);
      expect([...all.subarray(3 * r, 3 * r + 3)]).toEqual([...one]);
    }
  });

  it('say what is wrong with weights that do not fit', () => {
    expect(() => readLayer({ ...LAYER, inputs: 3 })).toThrow(/must hold 6 weights, but has 4/);
  });
});

describe('softmax', () => {
  it('makes probabilities, also of large values', () => {
    const values = Float32Array.of(1000, 1000 + Math.log(3));
    softmax(values);
    expect(values[0]).toBeCloseTo(0.25, 4);
    expect(values[1]).toBeCloseTo(0.75, 4);
  });
});

describe('choice of strokes', () => {
  const p = (ring: number): { ring: number; palmMute: number; dead: number } => ({
    ring,
    palmMute: 0,
    dead: 0,
  });

  it('takes the likely candidates, and of two too close the surer one', () => {
    expect(chooseStrokes([0, 0.5, 0.53, 1], [p(0.9), p(0.6), p(0.8), p(0.2)])).toEqual([0, 2]);
  });
});
