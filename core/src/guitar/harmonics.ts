/**
 * Natural harmonics: a finger that touches the string where it divides into n equal parts leaves only its nth partial
 * (Rossing, Moore and Wheeler, "The Science of Sound", 3rd ed., ch. 10: modes of a string; from memory).
 */

/** Frets next to the nodes, and the partial that sounds there; the usual ones of rock guitar are 5, 7, 9 and 12. */
const PARTIAL_AT: Readonly<Record<number, number>> = {
  3: 6,
  4: 5,
  5: 4,
  7: 3,
  9: 5,
  12: 2,
  16: 5,
  19: 3,
  24: 4,
};

/** True where a harmonic sounds clearly. */
export function hasHarmonic(fret: number): boolean {
  return fret in PARTIAL_AT;
}

/** Semitones above the open string, to the nearest; an octave where the fret has no node of its own. */
export function harmonicInterval(fret: number): number {
  return Math.round(12 * Math.log2(PARTIAL_AT[fret] ?? 2));
}
