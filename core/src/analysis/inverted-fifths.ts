/**
 * Notes that no string has. An amplifier driven hard adds to two notes f1 < f2 the tone 2 f1 − f2 among others; under a fourth,
 * 3 to 4, that is the octave below its upper note, so an inverted fifth sounds as the power chord on the root below it.
 * Where the guitar does not reach that low, it was the inverted fifth.
 */
import type { Tuning } from '../guitar';
import type { HeardStrum } from '../mir';

/** Semitones over the lowest note of an inverted fifth. */
const INVERTED = ['0,5', '0,5,12'];
/** When more strums than this lie too low, it is the tuning that was guessed wrong. */
const MOST_TOO_LOW = 0.08;

/** Without the notes under the lowest string of `tuning` where an inverted fifth is left; `isGiven` when the user named it. */
export function aboveLowestString(
  strums: readonly HeardStrum[],
  tuning: Tuning,
  isGiven: boolean,
): HeardStrum[] {
  const lowest = Math.min(...tuning.stringsMidi) + tuning.capo;
  const tooLow = strums.filter(({ midi }) => midi.length > 0 && midi[0] < lowest).length;
  if (!isGiven && tooLow > MOST_TOO_LOW * strums.length) return [...strums];
  return strums.map((strum) => {
    const midi = strum.midi.filter((note) => note >= lowest);
    const isInverted = INVERTED.includes(midi.map((note) => note - midi[0]).join());
    if (midi.length === strum.midi.length || !isInverted) return strum;
    const alternatives = strum.alternatives.filter(
      (a) => a.midi[0] >= lowest && a.midi.join() !== midi.join(),
    );
    return { ...strum, midi, alternatives };
  });
}
