import {
  CHORD_SHAPES,
  createChordNetwork,
  SHAPES,
  LOWEST_BASS,
  ACTIVATIONS,
  SPECTRUM_SIZE,
} from '@wild-needle/core/mir';
import { createRandom } from '@wild-needle/core/units';
import { describe, expect, it } from 'vitest';
import { ChordTraining, type ChordExample } from './chord-training';

const BINS = 3;
const FIRST_MIDI = 16;

/** Six partials of each note, as `chord-spectrum.ts` would show them. */
function example(bass: number, shape: number, side: boolean): ChordExample {
  const notes = CHORD_SHAPES[shape].notes!.map((above) => bass + above);
  const spectrum = new Float32Array(SPECTRUM_SIZE);
  for (const note of notes) {
    for (let partial = 1; partial <= 6; partial++) {
      const bin = Math.round((note + 12 * Math.log2(partial) - FIRST_MIDI) * BINS);
      if (bin < SPECTRUM_SIZE) spectrum[bin] += 1 / partial;
    }
  }
  const length = Math.hypot(...spectrum);
  const mid = spectrum.map((v) => v / length);
  return {
    mid,
    side: side ? mid : null,
    bass,
    shape,
    activation: Uint8Array.from({ length: ACTIVATIONS }, (_, i) => (notes.includes(bass + i) ? 1 : 0)),
  };
}

function shapeOf(notes: string): number {
  return CHORD_SHAPES.findIndex((shape) => shape.notes?.join() === notes);
}

/** Single notes, octaves and both power chords on sixteen lowest notes, apart from each other by octaves too. */
const EXAMPLES = ['0', '0,12', '0,7', '0,7,12'].flatMap((notes) =>
  Array.from({ length: 16 }, (_, k) => example(36 + k, shapeOf(notes), k % 2 === 0)),
);

function trained(seed: number, rounds: number): { training: ChordTraining; losses: number[] } {
  const random = createRandom(seed);
  const options = { hidden: 12, bottleneck: 4, batch: EXAMPLES.length, dropout: 0, noise: 0.005, random };
  const training = new ChordTraining(options);
  const losses = Array.from({ length: rounds }, () => {
    const loss = training.learn(EXAMPLES) / EXAMPLES.length;
    training.step(0.01, 0);
    return loss;
  });
  return { training, losses };
}

describe('training of the chord network', () => {
  const { training, losses } = trained(3, 120);

  it('begins by knowing nothing and learns its examples', () => {
    expect(losses[0]).toBeGreaterThan(4);
    expect(losses.at(-1)).toBeLessThan(0.3);
  });

  it('makes weights with which the analysis names them', () => {
    const network = createChordNetwork(training.weights());
    const right = EXAMPLES.filter(({ mid, side, bass, shape }) => {
      const { logProbabilities } = network(mid, side);
      const best = logProbabilities.indexOf(Math.max(...logProbabilities));
      return best === (bass - LOWEST_BASS) * SHAPES + shape;
    });
    expect(right.length / EXAMPLES.length).toBeGreaterThan(0.9);
    const { bass, mid, side } = EXAMPLES.at(-1)!;
    const present = network(mid, side).activation(bass);
    expect(present[7]).toBeGreaterThan(0.5);
    expect(present[5]).toBeLessThan(0.5);
  });

  it('is the same for the same seed', () => {
    expect(trained(3, 3).training.weights()).toEqual(trained(3, 3).training.weights());
    expect(trained(3, 3).losses).not.toEqual(trained(4, 3).losses);
  });
});
