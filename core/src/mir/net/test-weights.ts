/** Layers of random weights for the tests of what is built from them. */
import type { Random } from '../../units';
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

/** Of browsers, workers and Node alike (WHATWG HTML, section 8.3). */
declare function btoa(text: string): string;
