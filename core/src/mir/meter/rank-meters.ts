/** The readings of beats and bars in order, as probabilities; alternatives are those that a player would hear as others. */
import { enumerateMeters, FASTEST_BPM, SLOWEST_BPM, type MeterHypothesis, type MeterStrum } from './meter';
import { scoreMeters, type MeterWeights } from './score-meters';
import type { OnsetStrength } from '../onsets/onset-strength';
import type { MeterAlternative } from '../types';

/** Readings nearer in tempo than this are the same, when their meter is. */
const SAME_TEMPO = 0.04;
const ALTERNATIVES = 4;
/** Counted in halves or doubles, the same song: kept however unlikely they are. */
const OCTAVES = [0.5, 2];

export interface RankedMeters {
  /** The likeliest. */
  readonly reading: MeterHypothesis;
  /**
   * Best first, the chosen one among them, and always its half and its double. Where no pulse was followed that fast or slow, as
   * in quarter notes at 260 bpm and nothing between them, that one has probability 0: nothing was measured of it.
   */
  readonly alternatives: readonly MeterAlternative[];
}

/** Null when there is no pulse to follow. */
export function rankMeters(
  strength: OnsetStrength,
  strums: readonly MeterStrum[],
  durationS: number,
  weights: MeterWeights,
): RankedMeters | null {
  const all = enumerateMeters(strength, strums, durationS);
  const scores = scoreMeters(all, weights);
  const readings = all.map((reading, r) => ({ reading, score: scores[r] })).sort((a, b) => b.score - a.score);
  if (readings.length === 0) return null;
  const top = readings[0].score;
  const total = readings.reduce((sum, { score }) => sum + Math.exp(score - top), 0);
  // Readings that differ in nothing but the place of the downbeat speak for the same tempo and meter.
  const kinds: { best: MeterHypothesis; probability: number }[] = [];
  for (const { reading, score } of readings) {
    const share = Math.exp(score - top) / total;
    const same = kinds.find(({ best }) => isSame(best, reading, reading.tempoBpm));
    if (same) same.probability += share;
    else kinds.push({ best: reading, probability: share });
  }
  kinds.sort((a, b) => b.probability - a.probability);
  const [{ best: reading }] = kinds;
  const octaves = OCTAVES.map((factor) => factor * reading.tempoBpm);
  const measured = kinds
    .filter(({ best }, rank) => rank < ALTERNATIVES || octaves.some((bpm) => isSame(best, reading, bpm)))
    .map(({ best, probability }) => ({ tempoBpm: best.tempoBpm, meter: best.grouping.meter, probability }));
  const unmeasured = octaves.filter(
    (bpm) => isPlayable(bpm) && !kinds.some(({ best }) => isSame(best, reading, bpm)),
  );
  return {
    reading,
    alternatives: [
      ...measured,
      ...unmeasured.map((tempoBpm) => ({ tempoBpm, meter: reading.grouping.meter, probability: 0 })),
    ],
  };
}

function isPlayable(bpm: number): boolean {
  return bpm > SLOWEST_BPM * (1 - SAME_TEMPO) && bpm < FASTEST_BPM * (1 + SAME_TEMPO);
}

function isSame(a: MeterHypothesis, b: MeterHypothesis, tempoBpm: number): boolean {
  const [one, other] = [a.grouping.meter, b.grouping.meter];
  return (
    one.beats === other.beats &&
    one.unit === other.unit &&
    Math.abs(Math.log(a.tempoBpm / tempoBpm)) < SAME_TEMPO
  );
}
