/** The readings of beats and bars in order, as probabilities; alternatives are those that a player would hear as others. */
import {
  enumerateMeters,
  scoreMeter,
  type MeterHypothesis,
  type MeterStrum,
  type MeterWeights,
} from './meter';
import type { OnsetStrength } from './onset-strength';
import type { Meter, MeterAlternative } from './types';

/** Readings nearer in tempo than this are the same, when their meter is. */
const SAME_TEMPO = 0.04;
const ALTERNATIVES = 4;

export interface RankedMeters {
  /** The likeliest. */
  readonly reading: MeterHypothesis;
  /** Best first, the chosen one among them. */
  readonly alternatives: readonly MeterAlternative[];
}

/** Null when there is no pulse to follow. */
export function rankMeters(
  strength: OnsetStrength,
  strums: readonly MeterStrum[],
  durationS: number,
  weights: MeterWeights,
): RankedMeters | null {
  const readings = enumerateMeters(strength, strums, durationS)
    .map((reading) => ({ reading, score: scoreMeter(reading, weights) }))
    .sort((a, b) => b.score - a.score);
  if (readings.length === 0) return null;
  const top = readings[0].score;
  const total = readings.reduce((sum, { score }) => sum + Math.exp(score - top), 0);
  const alternatives: { tempoBpm: number; meter: Meter; confidence: number }[] = [];
  for (const { reading, score } of readings) {
    const { meter } = reading.grouping;
    const share = Math.exp(score - top) / total;
    const same = alternatives.find(
      (a) =>
        a.meter.beats === meter.beats &&
        a.meter.unit === meter.unit &&
        Math.abs(Math.log(a.tempoBpm / reading.tempoBpm)) < SAME_TEMPO,
    );
    if (same) same.confidence += share;
    else if (alternatives.length < ALTERNATIVES) {
      alternatives.push({ tempoBpm: reading.tempoBpm, meter, confidence: share });
    }
  }
  return { reading: readings[0].reading, alternatives };
}
