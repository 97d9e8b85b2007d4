/** Inverted fifths that an amplifier made power chords of (`guitar/driven-fourth.ts`), read as what the strings can have played. */
import { drivenFourthIn, type Tuning } from '../guitar';
import type { HeardStrum } from '../mir';

/** When more strums than this lie too low for another reason, it is the tuning that was guessed wrong. */
const MOST_TOO_LOW = 0.08;

/** Without the notes under the lowest string of `tuning` where an inverted fifth is left; `isGiven` when the user named it. */
export function aboveLowestString(
  strums: readonly HeardStrum[],
  tuning: Tuning,
  isGiven: boolean,
): HeardStrum[] {
  const lowest = Math.min(...tuning.stringsMidi) + tuning.capo;
  const fourths = strums.map(({ midi }) => drivenFourthIn(midi, lowest));
  const tooLow = strums.filter(({ midi }, k) => midi.length > 0 && midi[0] < lowest && !fourths[k]).length;
  if (!isGiven && tooLow > MOST_TOO_LOW * strums.length) return [...strums];
  return strums.map((strum, k) => {
    const midi = fourths[k];
    if (!midi) return strum;
    const alternatives = strum.alternatives.filter(
      (a) => a.midi[0] >= lowest && a.midi.join() !== midi.join(),
    );
    return { ...strum, midi, alternatives };
  });
}
