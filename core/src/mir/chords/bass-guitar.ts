/**
 * Notes of the bass guitar that were taken for the guitar's. A power chord under gain makes its difference tone, the octave below
 * the root, and a bass guitar that doubles the root plays the same: so a doubtful power chord can pass for a single note an octave
 * lower. Guitars play chords on their lowest strings; where all that lies under the lowest chord of a song is single notes, and those are
 * not clear, no guitar reaches that low.
 */
import { CHORD_SHAPES } from './chord-shapes.data';
import { BASS_NOTES, SHAPES } from './chord-network';

const SINGLE = CHORD_SHAPES.findIndex(({ notes }) => notes?.length === 1);
/** A chord that is read more seldom may be misread itself: share of the strums, and strums. */
const CHORD_SHARE = 0.04;
const CHORD_STRUMS = 2;
/**
 * Mean log-odds of low single notes against the best reading from the lowest chord up, below which they are the bass guitar's. Of the
 * songs made for training that no network had seen, true ones had 4.4 and more; notes of a bass guitar on one real record, at two speeds,
 * from a codec and cut, 2.3 to 3.6.
 */
const CLEAR = 4;
/** Log-probability of what can't be. */
const RULED_OUT = -60;

/**
 * `posteriors[k]`: probability of each reading of strum k, SHAPES values for each lowest note. Answers `evidence`, the log-probabilities
 * of the same shape, without the notes of the bass guitar; null when there are none.
 */
export function withoutBassGuitar(
  evidence: readonly Float32Array[],
  posteriors: readonly Float32Array[],
): Float32Array[] | null {
  const readings = posteriors.map((p) => p.indexOf(p.reduce((a, b) => Math.max(a, b))));
  const lowest = lowestChord(readings);
  if (lowest === null) return null;
  const isLow = readings.map((c) => c % SHAPES === SINGLE && c < lowest * SHAPES);
  let [count, odds] = [0, 0];
  posteriors.forEach((p, k) => {
    if (!isLow[k]) return;
    const above = p.subarray(lowest * SHAPES).reduce((a, b) => Math.max(a, b));
    count++;
    odds += Math.log(p[readings[k]] / Math.max(above, Number.MIN_VALUE));
  });
  if (count === 0 || odds >= CLEAR * count) return null;
  return evidence.map((own, k) => (isLow[k] ? own.slice().fill(RULED_OUT, 0, lowest * SHAPES) : own));
}

/** Lowest note of the chords that are read often enough, counted from the lowest that is read; null without chords. */
function lowestChord(readings: readonly number[]): number | null {
  const chords = new Uint32Array(BASS_NOTES);
  for (const c of readings) if (c % SHAPES !== SINGLE) chords[Math.floor(c / SHAPES)]++;
  const enough = Math.max(CHORD_STRUMS, CHORD_SHARE * readings.length);
  const lowest = chords.findIndex((count) => count >= enough);
  return lowest < 0 ? null : lowest;
}
