/**
 * Which candidates are strokes, and whether they ring, are palm-muted or dead: small networks on what the instant
 * looks like, trained on generated songs (`training/`), then the nearer of two that can't both be strokes.
 */
import { SAME_STROKE_S } from '../../units';
import { applyLayer, readLayer, type LayerWeights } from '../net/network';
import { softmax } from '../net/probability';
import { STROKE_FEATURES } from './stroke-features';
import { NO_STROKE, STROKE_KINDS, strokeProbability, type StrokeProbabilities } from './stroke-kinds';

export interface StrokeNetworkWeights {
  readonly hidden: LayerWeights;
  /** No stroke, then each of {@link STROKE_KINDS}. */
  readonly output: LayerWeights;
}

/** Networks that differ in nothing but the chance they began with; their mean is steadier than any (see `../chords/chord-ensemble.ts`). */
export interface StrokeEnsembleWeights {
  readonly members: readonly StrokeNetworkWeights[];
}

export type StrokeNetwork = (features: Float32Array) => StrokeProbabilities[];

/** Takes the features of all candidates, one after the other. */
export function createStrokeNetwork({ members }: StrokeEnsembleWeights): StrokeNetwork {
  if (members.length === 0) throw new RangeError('an ensemble must have a member, but has none');
  const networks = members.map((weights) => ({
    hidden: readLayer(weights.hidden, STROKE_FEATURES),
    output: readLayer(weights.output),
  }));
  return (features) => {
    const count = features.length / STROKE_FEATURES;
    const means = Array.from({ length: count }, () => ({ ...NO_STROKE }));
    for (const { hidden, output } of networks) {
      const middle = new Float32Array(count * hidden.outputs);
      const answers = new Float32Array(count * output.outputs);
      applyLayer(hidden, features, count, middle, true);
      applyLayer(output, middle, count, answers, false);
      means.forEach((mean, k) => {
        const answer = answers.subarray(k * output.outputs, (k + 1) * output.outputs);
        softmax(answer);
        STROKE_KINDS.forEach((kind, i) => (mean[kind] += answer[i + 1] / networks.length));
      });
    }
    return means;
  };
}

/**
 * The F1 of the validation songs is highest between 0.4 and 0.5. Lower, since real records are heard with less certainty than
 * they: there a twentieth more of the charted strokes is found, and rendered songs are heard alike.
 */
const STROKE_FROM = 0.3;

/** Indices of the candidates that are strokes, in order of time; of two that are too close the surer one. */
export function chooseStrokes(
  timesS: readonly number[],
  probabilities: readonly StrokeProbabilities[],
  threshold = STROKE_FROM,
): number[] {
  const chosen: number[] = [];
  timesS.forEach((timeS, k) => {
    const p = strokeProbability(probabilities[k]);
    if (p < threshold) return;
    const before = chosen.at(-1);
    if (before === undefined || timeS - timesS[before] >= SAME_STROKE_S) chosen.push(k);
    else if (p > strokeProbability(probabilities[before])) chosen[chosen.length - 1] = k;
  });
  return chosen;
}
