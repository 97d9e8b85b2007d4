/**
 * Where bars begin: how many beats repeat as a unit, and which of them is the one. Both read what happens
 * at each beat: low-end attack, strum, and whether the chord changes there.
 */
import { cosineSimilarity } from '../dsp';
import type { HeardStrum, Meter } from './types';
import type { OnsetStrength } from './onset-strength';

/** Beats per bar that are told apart here; most rock is in four, which the prior says. */
const BAR_LENGTHS = [
  { beats: 4, prior: 1 },
  { beats: 3, prior: 0.85 },
];

/** Songs that begin with a pick-up are the exception: the first stroke speaks for its beat. */
const STARTS_ON_ONE = 0.4;

/** Features of one beat: attacks per half beat, low end, and the roots sounding in it. */
function beatFeatures(
  beatsS: readonly number[],
  strums: readonly HeardStrum[],
  { frameRate, curves }: OnsetStrength,
): Float32Array[] {
  let next = 0;
  return beatsS.map((start, b) => {
    const end = beatsS[b + 1] ?? start + (start - (beatsS[b - 1] ?? start - 0.5));
    const features = new Float32Array(4 + 12);
    while (next < strums.length && strums[next].timeS < start - 0.06) next++;
    for (let s = next; s < strums.length && strums[s].timeS < end - 0.06; s++) {
      const { timeS, rootPc } = strums[s];
      features[timeS - start < 0.45 * (end - start) ? 0 : 1] += 0.5;
      if (rootPc !== null) features[4 + rootPc] = 1;
    }
    for (let n = Math.round((start - 0.04) * frameRate); n < (start + 0.06) * frameRate; n++) {
      features[2] = Math.max(features[2], 2 * (curves.low[n] ?? 0));
    }
    for (let n = Math.round((start - 0.04) * frameRate); n < (start + 0.06) * frameRate; n++) {
      features[3] = Math.max(features[3], 2 * (curves.edge[n] ?? 0));
    }
    return features;
  });
}

function lagSimilarity(features: readonly Float32Array[], lag: number): number {
  let sum = 0;
  for (let b = lag; b < features.length; b++) sum += cosineSimilarity(features[b], features[b - lag]);
  return features.length > lag ? sum / (features.length - lag) : 0;
}

export interface Bars {
  readonly meter: Meter;
  readonly downbeatsS: readonly number[];
}

export function findBars(
  beatsS: readonly number[],
  strums: readonly HeardStrum[],
  strength: OnsetStrength,
): Bars {
  const features = beatFeatures(beatsS, strums, strength);
  let beatsPerBar = 4;
  let best = -1;
  for (const { beats, prior } of BAR_LENGTHS) {
    // A bar repeats, and so do two and four of them.
    const score =
      prior *
      (lagSimilarity(features, beats) +
        lagSimilarity(features, 2 * beats) +
        lagSimilarity(features, 4 * beats));
    if (score > best) [best, beatsPerBar] = [score, beats];
  }

  // The one: low end, a strum, a new chord, and brightness (crash) there.
  const weightOf = (b: number): number => {
    const now = features[b];
    const before = features[b - 1];
    const strumHere = now[0] > 0 ? 0.5 : 0;
    let change = 0;
    if (before) for (let i = 4; i < now.length; i++) if (now[i] > 0 && before[i] === 0) change = 1;
    return now[2] + 0.3 * now[3] + strumHere + 0.8 * change;
  };
  const firstStruck = features.findIndex((f) => f[0] > 0);
  let phase = 0;
  best = -1;
  for (let p = 0; p < beatsPerBar; p++) {
    let sum =
      firstStruck >= 0 && firstStruck % beatsPerBar === p
        ? STARTS_ON_ONE * (features.length / beatsPerBar)
        : 0;
    let count = 0;
    for (let b = p; b < features.length; b += beatsPerBar, count++) sum += weightOf(b);
    if (sum / Math.max(1, count) > best) [best, phase] = [sum / Math.max(1, count), p];
  }
  return {
    meter: { beats: beatsPerBar, unit: 4 },
    downbeatsS: beatsS.filter((_, b) => b % beatsPerBar === phase),
  };
}
