/** Where strokes may be, and what it looks like there: the input of the stroke network. */
import { addStrength, computeOnsetStrength, type OnsetStrength } from '../onsets/onset-strength';
import { findOnsetCandidates } from '../onsets/onset-candidates';
import type { MidSide } from '../types';
import { computeStrokeFeatures } from './stroke-features';

export interface StrokeCandidates {
  readonly timesS: readonly number[];
  /** STROKE_FEATURES values per candidate, one after the other. */
  readonly features: Float32Array;
  /** Of everything that sounds: for beats and bars. */
  readonly strength: OnsetStrength;
}

interface Strengths {
  readonly mid: OnsetStrength;
  readonly side: OnsetStrength | null;
  /** Of both together. */
  readonly all: OnsetStrength;
}

export function computeStrengths({ mid, side }: MidSide, sampleRate: number): Strengths {
  const ofMid = computeOnsetStrength(mid, sampleRate);
  const ofSide = side ? computeOnsetStrength(side, sampleRate) : null;
  return { mid: ofMid, side: ofSide, all: ofSide ? addStrength(ofMid, ofSide) : ofMid };
}

function featuresAt(
  { mid, side }: MidSide,
  strengths: Strengths,
  sampleRate: number,
  timesS: readonly number[],
): Float32Array {
  return computeStrokeFeatures(
    { samples: mid, strength: strengths.mid },
    side && strengths.side ? { samples: side, strength: strengths.side } : null,
    sampleRate,
    timesS,
  );
}

/** What it looks like at given instants: the same values as {@link findStrokeCandidates} has of its own. */
export function strokeFeaturesAt(
  midSide: MidSide,
  sampleRate: number,
  timesS: readonly number[],
): Float32Array {
  return featuresAt(midSide, computeStrengths(midSide, sampleRate), sampleRate, timesS);
}

export function findStrokeCandidates(midSide: MidSide, sampleRate: number): StrokeCandidates {
  const { mid, side } = midSide;
  const strengths = computeStrengths(midSide, sampleRate);
  const strength = strengths.all;
  const timesS = findOnsetCandidates(side ? [mid, side] : [mid], sampleRate, strength);
  return { timesS, features: featuresAt(midSide, strengths, sampleRate, timesS), strength };
}
