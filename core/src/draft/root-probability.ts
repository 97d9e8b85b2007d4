/**
 * How sure the root of a strum is, whatever stands on it: under gain a single note, a power chord and a full chord on one root sound nearly alike, so
 * that the root is often certain where the chord is not.
 */
import { identifyChord } from '../theory';
import type { HeardStrum } from '../mir';

type Doubtful = Pick<HeardStrum, 'rootPc' | 'confidence' | 'alternatives'>;

/**
 * Probability that the strum is there and has this root, 0 to 1: that of the chord, and of what else may sound there on the same root. Readings that
 * were too unlikely to be kept count for nothing. A dead stroke has no root: its own confidence.
 */
export function rootProbability({ rootPc, confidence, alternatives }: Doubtful): number {
  const onRoot = alternatives.filter(({ midi }) => identifyChord(midi)?.rootPc === rootPc);
  const sum = (some: Doubtful['alternatives']): number => some.reduce((total, a) => total + a.probability, 0);
  // Alternatives are told of a strum that is there, the confidence is not.
  const chord = Math.max(1e-6, 1 - sum(alternatives));
  return Math.min(1, confidence + Math.min(1, confidence / chord) * sum(onRoot));
}
