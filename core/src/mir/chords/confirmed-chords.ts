/**
 * Chords that the user has confirmed, put into the evidence: they are certain, and shapes that the network took for others in
 * them are corrected in all strums. See `../confirmed.ts`.
 */
import type { MidiNote } from '../../units';
import type { Annotation, ConfirmedStrum } from '../confirmed';
import { fitIntercepts } from '../net/class-intercepts';
import { ACTIVATIONS, BASS_NOTES, LOWEST_BASS, SHAPES, type ChordEvidence } from './chord-network';
import { CHORD_SHAPES } from './chord-shapes.data';

/** The sounding notes that are known, or believed, of a strum. */
type Known = Pick<ConfirmedStrum, 'midi'>;

/** Log-probability of what was ruled out: certain, yet finite, so that pooled evidence stays a number. */
const RULED_OUT = -12;

function shapeOf(midi: readonly MidiNote[]): number {
  const above = midi.map((m) => m - midi[0]).join();
  const named = CHORD_SHAPES.findIndex((shape) => shape.notes?.join() === above);
  return named >= 0 ? named : CHORD_SHAPES.findIndex((shape) => shape.notes === null);
}

function isReadable({ midi }: Known): boolean {
  return midi.length > 0 && midi[0] >= LOWEST_BASS && midi[0] < LOWEST_BASS + BASS_NOTES;
}

function certainChord({ midi }: ConfirmedStrum): ChordEvidence {
  const logProbabilities = new Float32Array(BASS_NOTES * SHAPES).fill(RULED_OUT);
  logProbabilities[(midi[0] - LOWEST_BASS) * SHAPES + shapeOf(midi)] = 0;
  const activation = Float32Array.from({ length: ACTIVATIONS }, (_, i) =>
    midi.includes(midi[0] + i) ? 1 : 0,
  );
  return { logProbabilities, activation: () => activation };
}

/** Evidence in which shapes that the network takes for others, over all strums of which something is known, are corrected by as much. */
export function correctShapes(
  evidence: readonly ChordEvidence[],
  known: readonly (Known | null)[],
): ChordEvidence[] {
  const examples = evidence.flatMap(({ logProbabilities }, k) => {
    const strum = known[k];
    if (!strum || !isReadable(strum)) return [];
    const from = (strum.midi[0] - LOWEST_BASS) * SHAPES;
    const logits = Array.from(logProbabilities.subarray(from, from + SHAPES));
    return [{ logits, truth: shapeOf(strum.midi) }];
  });
  if (examples.length === 0) return [...evidence];
  const intercepts = fitIntercepts(examples, SHAPES);
  return evidence.map((own) => {
    const shifted = own.logProbabilities.map((l, c) => l + intercepts[c % SHAPES]);
    const top = shifted.reduce((m, v) => Math.max(m, v), -Infinity);
    const total = top + Math.log(shifted.reduce((sum, v) => sum + Math.exp(v - top), 0));
    return { ...own, logProbabilities: shifted.map((v) => v - total) };
  });
}

/** `annotations[k]` says what is confirmed of strum k. */
export function confirmChords(
  evidence: readonly ChordEvidence[],
  annotations: readonly Annotation[],
): ChordEvidence[] {
  const confirmed = annotations.map((annotation) =>
    annotation !== null && annotation !== 'none' && isReadable(annotation) ? annotation : null,
  );
  return correctShapes(evidence, confirmed).map((own, k) => {
    const strum = confirmed[k];
    return strum ? certainChord(strum) : own;
  });
}
