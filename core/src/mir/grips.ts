/**
 * Two strings or three: distortion makes the octave over a power chord either way, so one strum hardly tells. Players keep
 * to one grip while a riff lasts, another where they mute (common practice); so the strums of a riff decide together.
 */
import { CHORD_FORMS } from './chord-forms.data';

/** Forms on two strings, each with the same one and the octave of its lowest note on a third. */
const GRIPS = CHORD_FORMS.flatMap(({ notes }, two) => {
  const withOctave = notes?.length === 2 ? [...notes, 12].join() : '';
  const three = CHORD_FORMS.findIndex((form) => form.notes?.join() === withOctave);
  return three < 0 ? [] : [{ two, three }];
});
/** A strum speaks up to these log-odds, so that a few that are sure and wrong can't decide for all. */
const MOST_LOG_ODDS = 3;
/** Weight of the others, who are not independent: together they count as the root of their number. */
const WEIGHT = 0.8;
/** A strum that is clear keeps its say against any number of others. */
const MOST_PULL = 4;
/** Log-odds against three strings where the hand mutes: it lies on the lowest ones, and the pick stays there (common practice). */
const MUTED_AGAINST = 1;

/** What is known of a strum besides its notes. */
export interface GripPlace {
  /** Riff that it stands in; '' outside of all. */
  readonly riff: string;
  readonly palmMuted: boolean;
}

function logSum(a: number, b: number): number {
  const top = Math.max(a, b);
  return top === -Infinity ? top : top + Math.log(Math.exp(a - top) + Math.exp(b - top));
}

/** Log-odds of three strings against two, and the probability that it is either. */
function gripOf(logProbabilities: Float32Array): { readonly odds: number; readonly share: number } {
  let [two, three] = [-Infinity, -Infinity];
  for (let bass = 0; bass < logProbabilities.length; bass += CHORD_FORMS.length) {
    for (const grip of GRIPS) {
      two = logSum(two, logProbabilities[bass + grip.two]);
      three = logSum(three, logProbabilities[bass + grip.three]);
    }
  }
  return { odds: three - two, share: Math.exp(logSum(two, three)) };
}

/**
 * By how much the log-odds of three strings against two change for each strum, given the log-probabilities of all
 * readings (index as in ChordEvidence) and where each stands; 0 where neither the riff nor the hand says anything.
 */
export function gripPulls(logProbabilities: readonly Float32Array[], places: readonly GripPlace[]): number[] {
  const groups = new Map<string, { odds: number; share: number }>();
  const groupOf = ({ riff, palmMuted }: GripPlace): string => `${riff}/${palmMuted}`;
  places.forEach((place, k) => {
    if (place.riff === '') return;
    const { odds, share } = gripOf(logProbabilities[k]);
    const sum = groups.get(groupOf(place)) ?? { odds: 0, share: 0 };
    sum.odds += share * Math.max(-MOST_LOG_ODDS, Math.min(MOST_LOG_ODDS, odds));
    sum.share += share;
    groups.set(groupOf(place), sum);
  });
  return places.map((place) => {
    const { odds = 0, share = 0 } = groups.get(groupOf(place)) ?? {};
    const pull = share === 0 ? 0 : (WEIGHT * odds) / Math.sqrt(share);
    const byHand = place.palmMuted ? -MUTED_AGAINST : 0;
    return Math.max(-MOST_PULL, Math.min(MOST_PULL, pull)) + byHand;
  });
}

/** Moves the log-odds of three strings against two, in place; what both have together stays, and so do all other readings. */
export function pullGrip(logProbabilities: Float32Array, pull: number): void {
  if (pull === 0) return;
  for (let bass = 0; bass < logProbabilities.length; bass += CHORD_FORMS.length) {
    for (const grip of GRIPS) {
      const [two, three] = [logProbabilities[bass + grip.two], logProbabilities[bass + grip.three]];
      const both = logSum(two, three);
      const odds = three - two + pull;
      logProbabilities[bass + grip.two] = both - logSum(0, odds);
      logProbabilities[bass + grip.three] = both - logSum(0, -odds);
    }
  }
}
