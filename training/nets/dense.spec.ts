import { describe, expect, it } from 'vitest';
import { applyLayer, readLayer } from '@wild-needle/core/mir';
import { createRandom } from '@wild-needle/core/units';
import { maskRectified, shuffled, TrainableLayer } from './dense';

describe('a trainable layer', () => {
  it('learns what no single layer can: exclusive or', () => {
    const random = createRandom(4);
    const hidden = new TrainableLayer(2, 8, random);
    const output = new TrainableLayer(8, 1, random);
    const input = Float32Array.of(0, 0, 0, 1, 1, 0, 1, 1);
    const wanted = [0, 1, 1, 0];
    const h = new Float32Array(4 * 8);
    const y = new Float32Array(4);
    const dh = new Float32Array(4 * 8);
    for (let round = 0; round < 800; round++) {
      hidden.forward(input, 4, h, true);
      output.forward(h, 4, y, false);
      const gradient = y.map((v, i) => 2 * (v - wanted[i]));
      output.backward(h, 4, gradient, dh);
      maskRectified(dh, h, h.length);
      hidden.backward(input, 4, dh, null);
      hidden.step(0.02, 0);
      output.step(0.02, 0);
    }
    hidden.forward(input, 4, h, true);
    output.forward(h, 4, y, false);
    wanted.forEach((w, i) => expect(Math.abs(y[i] - w)).toBeLessThan(0.1));
  });

  it('is pulled to the weights for which a penalty and what the examples ask for hold each other', () => {
    const layer = new TrainableLayer(1, 1, createRandom(5));
    const [input, out] = [Float32Array.of(1), new Float32Array(1)];
    const answer = (value: number): number => {
      layer.forward(Float32Array.of(value), 1, out, false);
      return out[0];
    };
    for (let round = 0; round < 2000; round++) {
      layer.backward(input, 1, Float32Array.of(answer(1) - 3), null);
      layer.penalise(0.5);
      layer.step(0.01, 0);
    }
    // The bias costs nothing and takes it all.
    expect(answer(1)).toBeCloseTo(3, 2);
    expect(answer(1) - answer(0)).toBeCloseTo(0, 2);
  });

  it('says how its answer changes with its input', () => {
    const layer = new TrainableLayer(5, 3, createRandom(6));
    const input = Float32Array.from({ length: 10 }, (_, i) => Math.sin(i));
    // What is asked for: the first output of the second row, and half of the third; the first row has nothing to teach.
    const gradient = Float32Array.of(0, 0, 0, 1, 0, 0.5);
    const told = new Float32Array(10).fill(9);
    layer.backward(input, 2, gradient, told);
    const asked = (values: Float32Array): number => {
      const out = new Float32Array(6);
      layer.forward(values, 2, out, false);
      return out.reduce((sum, v, i) => sum + v * gradient[i], 0);
    };
    const STEP = 0.01;
    told.forEach((slope, i) => {
      const moved = input.map((v, k) => (k === i ? v + STEP : v));
      expect(slope).toBeCloseTo((asked(moved) - asked(input)) / STEP, 3);
    });
  });

  it('is nearly the same after it was written as whole numbers', () => {
    const layer = new TrainableLayer(40, 3, createRandom(2));
    const input = Float32Array.from({ length: 40 }, (_, i) => Math.cos(i));
    const [exact, rounded] = [new Float32Array(3), new Float32Array(3)];
    layer.forward(input, 1, exact, false);
    applyLayer(readLayer(layer.quantise()), input, 1, rounded, false);
    exact.forEach((v, i) => expect(Math.abs(v - rounded[i])).toBeLessThan(0.03));
  });
});

describe('shuffling', () => {
  it('keeps every index once', () => {
    expect([...shuffled(50, createRandom(3))].sort((a, b) => a - b)).toEqual(
      Array.from({ length: 50 }, (_, i) => i),
    );
  });
});
