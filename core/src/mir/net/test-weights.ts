/** Layers of random weights for the tests of what is built from them. */
import type { Random } from '../../units';
import {
  CHORD_INPUTS,
  SHAPES,
  ACTIVATIONS,
  CONTEXT_NOTES,
  type ChordNetworkWeights,
} from '../chords/chord-network';
import type { LayerWeights } from './network';

export function randomLayer(inputs: number, outputs: number, scale: number, random: Random): LayerWeights {
  const whole = Int8Array.from({ length: inputs * outputs }, () => Math.round(254 * random() - 127));
  return {
    inputs,
    outputs,
    weights: btoa(String.fromCharCode(...new Uint8Array(whole.buffer))),
    scales: Array.from({ length: outputs }, () => scale),
    biases: Array.from({ length: outputs }, () => 0),
  };
}

/** A chord network of six hidden units and a bottleneck of two. */
export function randomChordNetwork(scale: number, random: Random): ChordNetworkWeights {
  const layer = (inputs: number, outputs: number): LayerWeights =>
    randomLayer(inputs, outputs, scale, random);
  return {
    hidden: layer(CHORD_INPUTS, 6),
    bottleneck: layer(6, 2),
    context: layer(2 * CONTEXT_NOTES.length, 6),
    shapes: layer(6, SHAPES),
    activation: layer(6, ACTIVATIONS),
  };
}

/** Of browsers, workers and Node alike (WHATWG HTML, section 8.3). */
declare function btoa(text: string): string;
