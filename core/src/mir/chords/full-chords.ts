/**
 * Chords that have a third, a fourth or a second over root and fifth. Under gain they sound nearly like the power chord on their root, and a song plays them
 * seldom: the network still tells them (of 28 in the rendered songs 25), but twenty power chords around them, and the vocabulary of the song, took them away.
 */
import { identifyChord, type ChordQuality } from '../../theory';
import { CHORD_SHAPES } from './chord-shapes.data';
import { BASS_NOTES, SHAPES } from './chord-network';

const FULL: readonly ChordQuality[] = ['maj', 'min', 'sus2', 'sus4'];
const FIFTH = 7;

/** Of each shape which full chord it is; null for all others. */
export const FULL_KIND: readonly (ChordQuality | null)[] = CHORD_SHAPES.map(({ notes }) => {
  if (!notes || notes.length < 3 || notes[1] !== FIFTH) return null;
  const quality = identifyChord(notes)?.quality;
  return quality && FULL.includes(quality) ? quality : null;
});

/**
 * The full chord that is likelier than all others on the likeliest lowest note together, by all its shapes; null where none is. `evidence` in
 * log-probability up to a constant, index as in `ChordEvidence`.
 */
export function fullKindOf(evidence: Float32Array): ChordQuality | null {
  let likeliest = 0;
  for (let c = 1; c < evidence.length; c++) if (evidence[c] > evidence[likeliest]) likeliest = c;
  const bass = likeliest - (likeliest % SHAPES);
  const sums = new Map<ChordQuality | null, number>();
  FULL_KIND.forEach((kind, shape) => {
    sums.set(kind, (sums.get(kind) ?? 0) + Math.exp(evidence[bass + shape] - evidence[likeliest]));
  });
  let best = { kind: null as ChordQuality | null, p: sums.get(null) ?? 0 };
  for (const [kind, p] of sums) if (kind !== null && p > best.p) best = { kind, p };
  return best.kind;
}

/** What the vocabulary may take from a full chord against the most usual chord on its lowest note, in log-probability. */
const MOST_AGAINST = 1.5;

/** The vocabulary's log-probabilities, `weighted`, with no full chord farther under the most usual one on its lowest note; in place. */
export function spareFullChords(weighted: Float32Array): void {
  for (let bass = 0; bass < BASS_NOTES * SHAPES; bass += SHAPES) {
    let usual = -Infinity;
    for (let shape = 0; shape < SHAPES; shape++) usual = Math.max(usual, weighted[bass + shape]);
    FULL_KIND.forEach((kind, shape) => {
      if (kind !== null) weighted[bass + shape] = Math.max(weighted[bass + shape], usual - MOST_AGAINST);
    });
  }
}
