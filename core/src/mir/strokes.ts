/**
 * Which candidates are strokes, and whether they ring, are palm-muted or dead: small networks on what the instant
 * looks like, trained on generated songs (`training/`), then the nearer of two that can't both be strokes.
 */
import { applyLayer, readLayer, softmax, type LayerWeights } from './network';
import { STROKE_FEATURES } from './stroke-features';

export interface StrokeNetworkWeights {
  readonly hidden: LayerWeights;
  /** Four outputs: none, ring, palm mute, dead. */
  readonly output: LayerWeights;
}

/** Networks that differ in nothing but the chance they began with; their mean is steadier than any (see `chord-committee.ts`). */
export interface StrokeCommitteeWeights {
  readonly members: readonly StrokeNetworkWeights[];
}

export interface StrokeProbabilities {
  readonly ring: number;
  readonly palmMute: number;
  readonly dead: number;
}

/** Two strokes of one guitar are never closer: sixteenths at 240 bpm are 62 ms apart. */
const MIN_DISTANCE_S = 0.05;

export type StrokeNetwork = (features: Float32Array) => StrokeProbabilities[];

/** Takes the features of all candidates, one after the other. */
export function createStrokeNetwork({ members }: StrokeCommitteeWeights): StrokeNetwork {
  if (members.length === 0) throw new RangeError('a committee must have a member, but has none');
  const networks = members.map((weights) => ({
    hidden: readLayer(weights.hidden, STROKE_FEATURES),
    output: readLayer(weights.output),
  }));
  return (features) => {
    const count = features.length / STROKE_FEATURES;
    const means = Array.from({ length: count }, () => ({ ring: 0, palmMute: 0, dead: 0 }));
    for (const { hidden, output } of networks) {
      const middle = new Float32Array(count * hidden.outputs);
      const answers = new Float32Array(count * output.outputs);
      applyLayer(hidden, features, count, middle, true);
      applyLayer(output, middle, count, answers, false);
      means.forEach((mean, k) => {
        const answer = answers.subarray(k * output.outputs, (k + 1) * output.outputs);
        softmax(answer);
        mean.ring += answer[1] / networks.length;
        mean.palmMute += answer[2] / networks.length;
        mean.dead += answer[3] / networks.length;
      });
    }
    return means;
  };
}

export function strokeProbability({ ring, palmMute, dead }: StrokeProbabilities): number {
  return ring + palmMute + dead;
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
    if (before === undefined || timeS - timesS[before] >= MIN_DISTANCE_S) chosen.push(k);
    else if (p > strokeProbability(probabilities[before])) chosen[chosen.length - 1] = k;
  });
  return chosen;
}
