/**
 * The strokes of a recording, and of one whose band was taken apart. Then an instant is looked at in all that sounds and in the guitars alone,
 * and both are believed half: a drum is doubted that the guitars' part does not have, and a dead stroke that went with the drums is not lost.
 */
import { bisector } from 'd3-array';
import { SAME_STROKE_S } from '../../units';
import type { OnsetStrength } from '../onsets/onset-strength';
import type { SplitBand } from '../types';
import { findStrokeCandidates, strokeFeaturesAt } from './stroke-candidates';
import { createStrokeNetwork } from './stroke-classifier';
import type { StrokeProbabilities } from './stroke-kinds';
import strokeWeights from './strokes.json';

export interface HeardStrokes {
  readonly timesS: readonly number[];
  readonly probabilities: readonly StrokeProbabilities[];
  /** Of everything that sounds: for beats and bars. */
  readonly strength: OnsetStrength;
}

/** Nearer, it is the same attack; which of two near ones is the stroke is chosen later. */
const SAME_ATTACK_S = SAME_STROKE_S / 2;

const byTime = bisector((timeS: number) => timeS);

/** Ascending, without those of `others` that are one of `timesS`. */
function together(timesS: readonly number[], others: readonly number[]): number[] {
  const isNew = (timeS: number): boolean =>
    timesS.length === 0 || Math.abs(timesS[byTime.center(timesS, timeS)] - timeS) >= SAME_ATTACK_S;
  return [...timesS, ...others.filter(isNew)].sort((a, b) => a - b);
}

function meanOf(a: StrokeProbabilities, b: StrokeProbabilities): StrokeProbabilities {
  return {
    ring: (a.ring + b.ring) / 2,
    palmMute: (a.palmMute + b.palmMute) / 2,
    dead: (a.dead + b.dead) / 2,
  };
}

export function findStrokesOf({ whole, guitars }: SplitBand, sampleRate: number): HeardStrokes {
  const network = createStrokeNetwork(strokeWeights);
  const { timesS, features, strength } = findStrokeCandidates(whole, sampleRate);
  if (!guitars) return { timesS, probabilities: network(features), strength };
  const all = together(timesS, findStrokeCandidates(guitars, sampleRate).timesS);
  const [ofAll, ofGuitars] = [whole, guitars].map((band) => network(strokeFeaturesAt(band, sampleRate, all)));
  return { timesS: all, probabilities: ofAll.map((p, k) => meanOf(p, ofGuitars[k])), strength };
}
