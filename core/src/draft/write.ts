/** From placed strokes to written strums: the fingering that moves the hand least, everything else as it was heard. */
import { candidateVoicings, chooseVoicings, type Tuning } from '../guitar';
import { PLAIN_STRUM, SIXTEENTH, type Riff, type Strum } from '../riff';
import { placeStrokes, type HeardStroke, type PlacedStroke } from './place';

/** Less sure than this, a strum is a guess: it is rather wrong than right (confidences are calibrated, docs/accuracy.md). */
const LEAST_SURE = 0.5;

/** What a strum that was heard with such a probability counts as. */
export function trustOf(confidence: number): 'heard' | 'guessed' {
  return confidence >= LEAST_SURE ? 'heard' : 'guessed';
}

/** Strokes in order of time. What the tuning can't play is left blank, as a place to fill in. */
export function writeStrums(
  strokes: readonly PlacedStroke[],
  tuning: Tuning,
  newId: (index: number) => string,
): Strum[] {
  const layers = strokes.map((s) => (s.dead ? [] : candidateVoicings(s.midi, tuning)));
  // A riff comes round: its last strum leads to its first.
  const voicings = chooseVoicings([...layers, ...layers, ...layers]).slice(layers.length, 2 * layers.length);
  return strokes.map(({ ticks, endTicks, palmMuted, dead, confidence }, k) => ({
    ...PLAIN_STRUM,
    id: newId(k),
    startTicks: ticks,
    durationTicks: endTicks - ticks,
    frets: voicings[k]?.frets ?? [],
    palmMute: palmMuted,
    dead,
    trust: trustOf(confidence),
  }));
}

/**
 * A pass as it was heard, written down: a draft of the riff to correct, or of a riff that is empty. What was checked by ear stays,
 * and nothing that was heard within a sixteenth of it stands beside it.
 */
export function strumsAsHeard(
  riff: Riff,
  strokes: readonly HeardStroke[],
  tuning: Tuning,
  newId: () => string,
): Strum[] {
  const checked = riff.strums.filter((s) => s.trust === 'checked');
  const isFree = ({ ticks }: PlacedStroke): boolean =>
    checked.every((s) => Math.abs(s.startTicks - ticks) >= SIXTEENTH);
  const heard = writeStrums(placeStrokes(riff, strokes).filter(isFree), tuning, newId);
  return [...checked, ...heard].sort((a, b) => a.startTicks - b.startTicks);
}
