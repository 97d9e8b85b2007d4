/**
 * A second guitar that plays the power chord an octave up brings the fifth over the octave with it. No hand has that on the chord as
 * it is gripped, on two or three strings (common practice), unless the tuning puts all four notes under one finger.
 */
import { findVoicings, type Tuning } from '../guitar';
import type { HeardStrum } from '../mir';

/** Semitones over the lowest note: a power chord on three strings, and its fifth an octave up. */
const BOTH_GUITARS = '0,7,12,19';
const GRIPPED = 3;
/** Of what the user has confirmed; nothing that is only heard is as sure. */
const CERTAIN = 1;

function isUnderOneFinger(midi: readonly number[], tuning: Tuning): boolean {
  return findVoicings(midi, tuning).some(({ frets }) => new Set(frets.map((f) => f.fret)).size === 1);
}

/** Power chords without what only a guitar an octave up can add; what the user has confirmed stays. */
export function withoutOctaveGuitar(strums: readonly HeardStrum[], tuning: Tuning): HeardStrum[] {
  return strums.map((strum) => {
    if (strum.confidence === CERTAIN) return strum;
    const above = strum.midi.map((note) => note - strum.midi[0]).join();
    if (above !== BOTH_GUITARS || isUnderOneFinger(strum.midi, tuning)) return strum;
    const midi = strum.midi.slice(0, GRIPPED);
    const alternatives = strum.alternatives.filter((a) => a.midi.join() !== midi.join());
    return { ...strum, midi, alternatives };
  });
}
