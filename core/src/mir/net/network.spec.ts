import { describe, expect, it } from 'vitest';
import { applyLayer, readLayer } from './network';

/** Weights 1, 2, -3, 4. */
const LAYER = { inputs: 2, outputs: 2, weights: 'AQL9BA==', scales: [0.5, 0.25], biases: [0.1, -1] };

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

  it.each([
    [1, 1, 1],
    [3, 3, 5],
    [4, 2, 4],
    [386, 7, 36],
    // More than a page of memory, after layers that left numbers in it.
    [500, 65, 90],
  ])(
    'of %i inputs and %i outputs are the sums that a plain loop makes, for %i rows',
    (inputs, outputs, rows) => {
      const layer = {
        inputs,
        outputs,
        weights: Float32Array.from({ length: inputs * outputs }, (_, i) => Math.cos(i)),
        biases: Float32Array.from({ length: outputs }, (_, o) => 0.1 - o),
      };
      const input = Float32Array.from({ length: inputs * rows }, (_, i) => Math.sin(1.3 * i));
      const out = new Float32Array(rows * outputs);
      applyLayer(layer, input, rows, out, false);
      for (let r = 0; r < rows; r++) {
        for (let o = 0; o < outputs; o++) {
          let sum = layer.biases[o];
          for (let i = 0; i < inputs; i++) sum += layer.weights[o * inputs + i] * input[r * inputs + i];
          expect(out[r * outputs + o]).toBeCloseTo(sum, 3);
        }
      }
    },
  );

  it('say what is wrong with weights that do not fit', () => {
    expect(() => readLayer({ ...LAYER, inputs: 3 })).toThrow(/must hold 6 weights, but has 4/);
  });
});
