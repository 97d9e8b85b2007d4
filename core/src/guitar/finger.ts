/**
 * From notes to frets: the candidates of a chord, and for a run of chords the ones that move the hand least. The one place that
 * says how many candidates are weighed and what habits count.
 */
import type { MidiNote } from '../units';
import { applyHabits } from './habits';
import { chooseHandPath } from './hand-path';
import { MAX_FRET, type Tuning } from './tuning';
import { findVoicings, type Voicing } from './voicing';

/** Candidates of each chord that a path chooses from; more change no choice on the songs of bench/quality. */
const PATH_WIDTH = 6;

/** The candidates of these notes, least effort first; empty for no notes, and where the tuning can't play them. */
export function candidateVoicings(notes: readonly MidiNote[], tuning: Tuning): Voicing[] {
  return applyHabits(findVoicings(notes, tuning), tuning).slice(0, PATH_WIDTH);
}

/** The same for what is written, or comes to be: over the whole neck where there is nothing near the nut. */
export function writtenVoicings(notes: readonly MidiNote[], tuning: Tuning): Voicing[] {
  const near = candidateVoicings(notes, tuning);
  if (near.length > 0) return near;
  return applyHabits(findVoicings(notes, tuning, { maxFret: MAX_FRET }), tuning).slice(0, PATH_WIDTH);
}

/** One of the candidates of each chord, so that the hand moves little; null for a chord without any. */
export function chooseVoicings(layers: readonly (readonly Voicing[])[]): (Voicing | null)[] {
  const { path } = chooseHandPath(layers.filter((layer) => layer.length > 0));
  let next = 0;
  return layers.map((layer) => (layer.length > 0 ? path[next++] : null));
}
