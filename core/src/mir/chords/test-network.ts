/** A small chord network of random weights, for the tests of this folder. */
import type { Random } from '../../units';
import type { LayerWeights } from '../net/network';
import { randomLayer } from '../net/test-weights';
import { ACTIVATIONS, CHORD_INPUTS, CONTEXT_NOTES, SHAPES, type ChordNetworkWeights } from './chord-network';

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
