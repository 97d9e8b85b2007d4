/**
 * What players do where the hand would be as well served otherwise: riffs keep to one movable grip, so a chord that
 * mixes an open string with stopped ones is played where there is no other way, or where its open string is the
 * lowest of the guitar and can't be had elsewhere; no string between is left out where a grip without that is at hand; chords stand on one of the two
 * lowest strings, and rather cross to the other than climb past the octave (common practice).
 */
import type { Tuning } from './tuning';
import type { Voicing } from './voicing';

/** About a fret of stretch: the movable grip is taken up to half the neck away. Chosen on the songs of bench/quality. */
const OPEN_GRIP_COST = 1;
/** A string left out between two that sound; from .4 on it changes nothing more. */
const SKIPPED_STRING_COST = 0.5;
/** A chord that starts on a thinner string than the two lowest: about two frets of the way there. Chosen on the same songs. */
const THIN_START_COST = 0.6;
/** Each fret past the octave, where the body of the guitar begins to be in the way. */
const PAST_OCTAVE_COST = 0.2;
const OCTAVE_FRET = 12;
/** The ordinary power-chord grip spans this many frets. */
const GRIP_SPAN = 2;

function isMovable({ frets }: Voicing): boolean {
  const stopped = frets.map((f) => f.fret);
  return Math.min(...stopped) > 0 && Math.max(...stopped) - Math.min(...stopped) <= GRIP_SPAN;
}

function skipsString({ frets }: Voicing): boolean {
  return frets.some(({ string }, k) => k > 0 && frets[k - 1].string - string > 1);
}

/** The voicings of one strum, least cost first, with the habit in their effort. */
export function applyHabits(voicings: readonly Voicing[], tuning: Tuning): Voicing[] {
  const movable = voicings.filter(isMovable);
  if (movable.length === 0) return [...voicings];
  const canStayTogether = !movable.every(skipsString);
  const lowest = tuning.stringsMidi.length;
  return voicings
    .map((voicing) => {
      const usesOpen = voicing.frets.some((f) => f.fret === 0 && f.string !== lowest);
      const startsThin = voicing.frets.length > 1 && voicing.frets[0].string < lowest - 1;
      const past = Math.max(0, (voicing.position ?? 0) - OCTAVE_FRET);
      const habit =
        (usesOpen ? OPEN_GRIP_COST : 0) +
        (canStayTogether && skipsString(voicing) ? SKIPPED_STRING_COST : 0) +
        (startsThin ? THIN_START_COST : 0) +
        PAST_OCTAVE_COST * past;
      return habit > 0 ? { ...voicing, effort: voicing.effort + habit } : voicing;
    })
    .sort((a, b) => a.effort - b.effort);
}
