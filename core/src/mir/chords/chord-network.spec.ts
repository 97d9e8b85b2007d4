import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import { CHORD_SHAPES } from './chord-shapes.data';
import {
  BASS_NOTES,
  CHORD_INPUTS,
  createChordNetwork,
  SHAPES,
  LOWEST_BASS,
  ACTIVATIONS,
  bothSay,
  writeChordInput,
} from './chord-network';
import { BINS_PER_SEMITONE, SPECTRUM_SIZE } from './chord-spectrum';
import type { LayerWeights } from '../net/network';
import { randomLayer } from '../net/test-weights';
import { randomChordNetwork } from './test-network';

const random = createRandom(12);
const layer = (inputs: number, outputs: number): LayerWeights => randomLayer(inputs, outputs, 0.001, random);
const WEIGHTS = randomChordNetwork(0.001, random);
const spectrum = Float32Array.from({ length: SPECTRUM_SIZE }, () => random() - 0.5);

describe('what the chord network sees', () => {
  it('is the same for a spectrum moved up with the lowest note', () => {
    const moved = new Float32Array(SPECTRUM_SIZE);
    moved.set(spectrum.subarray(0, SPECTRUM_SIZE - 2 * BINS_PER_SEMITONE), 2 * BINS_PER_SEMITONE);
    const [a, b] = [new Float32Array(CHORD_INPUTS), new Float32Array(CHORD_INPUTS)];
    writeChordInput(spectrum, null, 40, a);
    writeChordInput(moved, null, 42, b);
    // All but the height of the note itself.
    expect([...a.subarray(0, CHORD_INPUTS - 2)]).toEqual([...b.subarray(0, CHORD_INPUTS - 2)]);
  });

  it('says whether there are sides', () => {
    const input = new Float32Array(CHORD_INPUTS);
    writeChordInput(spectrum, spectrum, 40, input);
    expect(input.at(-1)).toBe(1);
  });
});

describe('what the chord network answers', () => {
  const evidence = createChordNetwork(WEIGHTS)(spectrum, null);

  it('is a probability over all lowest notes and shapes', () => {
    expect(evidence.logProbabilities).toHaveLength(BASS_NOTES * SHAPES);
    const total = evidence.logProbabilities.reduce((sum, v) => sum + Math.exp(v), 0);
    expect(total).toBeCloseTo(1, 3);
  });

  it('is a probability for each note over a lowest one', () => {
    const present = evidence.activation(LOWEST_BASS);
    expect(present).toHaveLength(ACTIVATIONS);
    expect(present.every((p) => p > 0 && p < 1)).toBe(true);
  });

  it('hangs on what speaks for the context of a note', () => {
    const alone = {
      ...WEIGHTS,
      context: { ...WEIGHTS.context, scales: WEIGHTS.context.scales.map(() => 0) },
    };
    const without = createChordNetwork(alone)(spectrum, null);
    expect(without.logProbabilities).not.toEqual(evidence.logProbabilities);
  });

  it('refuses weights of other context', () => {
    expect(() => createChordNetwork({ ...WEIGHTS, context: layer(8, 6) })).toThrow(/trained on 8/);
  });

  it('refuses weights of other features', () => {
    expect(() => createChordNetwork({ ...WEIGHTS, hidden: layer(10, 6) })).toThrow(/trained on 10/);
  });
});

describe('chord shapes', () => {
  it('start on their lowest note, hold their root, and are all different', () => {
    const named = CHORD_SHAPES.flatMap(({ notes, rootAbove }) => (notes ? [{ notes, rootAbove }] : []));
    for (const { notes, rootAbove } of named) {
      expect(notes[0]).toBe(0);
      expect(notes.some((n) => n % 12 === rootAbove % 12)).toBe(true);
    }
    expect(new Set(named.map(({ notes }) => notes.join())).size).toBe(named.length);
  });
});

describe('two recordings of one strum', () => {
  const of = (...p: number[]) => ({
    logProbabilities: Float32Array.from(p, Math.log),
    activation: () => new Float32Array(1),
  });
  const together = (a: readonly number[], b: readonly number[]): number[] =>
    [...bothSay(of(...a), of(...b)).logProbabilities].map(Math.exp);

  it('are believed half each, and say what one of them is sure of', () => {
    const [first, second, third] = together([0.98, 0.01, 0.01], [0.4, 0.4, 0.2]);
    expect(first).toBeGreaterThan(0.8);
    expect(second).toBeGreaterThan(third);
    expect(first + second + third).toBeCloseTo(1, 6);
  });

  it('say the same together where they say it alone', () => {
    together([0.7, 0.2, 0.1], [0.7, 0.2, 0.1]).forEach((p, c) =>
      expect(p).toBeCloseTo([0.7, 0.2, 0.1][c], 6),
    );
  });
});
