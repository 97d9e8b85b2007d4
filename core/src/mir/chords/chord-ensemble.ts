/**
 * Several chord networks, alike but for the chance they began with, that answer together: what one of them hears by accident the
 * others do not, so their mean is right more often and steadier (Lakshminarayanan, Pritzel and Blundell 2017, "Simple and scalable
 * predictive uncertainty estimation using deep ensembles").
 */
import {
  BASS_NOTES,
  createChordNetwork,
  SHAPES,
  ACTIVATIONS,
  type ChordNetwork,
  type ChordNetworkWeights,
} from './chord-network';

export interface ChordEnsembleWeights {
  readonly members: readonly ChordNetworkWeights[];
}

/** Probabilities are the geometric mean of the members', activations the plain one. */
export function createChordEnsemble({ members }: ChordEnsembleWeights): ChordNetwork {
  if (members.length === 0) throw new RangeError('an ensemble must have a member, but has none');
  const networks = members.map(createChordNetwork);
  return (mid, side) => {
    const answers = networks.map((network) => network(mid, side));
    const logs = new Float32Array(BASS_NOTES * SHAPES);
    for (const { logProbabilities } of answers) {
      for (let c = 0; c < logs.length; c++) logs[c] += logProbabilities[c] / answers.length;
    }
    let sum = 0;
    for (const log of logs) sum += Math.exp(log);
    const scale = Math.log(sum);
    for (let c = 0; c < logs.length; c++) logs[c] -= scale;
    return {
      logProbabilities: logs,
      activation: (bass) => {
        const all = answers.map((answer) => answer.activation(bass));
        return Float32Array.from(
          { length: ACTIVATIONS },
          (_, i) => all.reduce((total, one) => total + one[i], 0) / all.length,
        );
      },
    };
  };
}
