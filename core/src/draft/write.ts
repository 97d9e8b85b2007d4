/** From placed strokes to written strums: the fingering that moves the hand least, everything else as it was heard. */
import { candidateVoicings, chooseVoicings, type Tuning } from '../guitar';
import { PLAIN_STRUM, type Riff, type Strum } from '../riff';
import { placeStrokes, type HeardStroke, type PlacedStroke } from './place';

/** Strokes in order of time. What the tuning can't play is left blank, as a place to fill in. */
export function writeStrums(
  strokes: readonly PlacedStroke[],
  tuning: Tuning,
  newId: (index: number) => string,
): Strum[] {
  const layers = strokes.map((s) => (s.dead ? [] : candidateVoicings(s.midi, tuning)));
  // A riff comes round: its last strum leads to its first.
  const voicings = chooseVoicings([...layers, ...layers, ...layers]).slice(layers.length, 2 * layers.length);
  return strokes.map(({ ticks, endTicks, palmMuted, dead }, k) => ({
    ...PLAIN_STRUM,
    id: newId(k),
    startTicks: ticks,
    durationTicks: endTicks - ticks,
    frets: voicings[k]?.frets ?? [],
    palmMute: palmMuted,
    dead,
    trust: 'heard',
  }));
}

/** A pass as it was heard, written down: a draft of the riff to correct, or of a riff that is empty. */
export function strumsAsHeard(
  riff: Riff,
  strokes: readonly HeardStroke[],
  tuning: Tuning,
  newId: () => string,
): Strum[] {
  return writeStrums(placeStrokes(riff, strokes), tuning, newId);
}
