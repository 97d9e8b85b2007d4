/**
 * With the octave on one more string or without: distortion makes the octave either way, so one strum hardly tells. Players
 * keep to one way while a riff lasts, another where they mute (common practice); so the strums of a riff decide together.
 */
import { logAdd, logistic, logOdds } from '../net/probability';
import { CHORD_SHAPES } from './chord-shapes.data';

interface OctaveDoubling {
  readonly plain: number;
  readonly withOctave: number;
}

/** Forms of two notes, each with the same one and the octave of its lowest note on one string more. */
const DOUBLINGS: readonly OctaveDoubling[] = CHORD_SHAPES.flatMap(({ notes }, plain) => {
  const doubled = notes?.length === 2 ? [...notes, 12].join() : '';
  const withOctave = CHORD_SHAPES.findIndex((shape) => shape.notes?.join() === doubled);
  return withOctave < 0 ? [] : [{ plain, withOctave }];
});

/** A strum speaks up to these log-odds, so that a few that are sure and wrong can't decide for all. */
const MOST_LOG_ODDS = 3;
/** Weight of the others, who are not independent: together they count as the root of their number. */
const WEIGHT = 0.8;
/** A strum that is clear keeps its say against any number of others. */
const MOST_PULL = 4;
/** Log-odds against a third string where the hand mutes: it lies on the lowest ones, and the pick stays there (common practice). */
const MUTED_AGAINST = 1;

/**
 * When their riffs have decided, so many power chords have the wrong number of strings: 8 in 100 of the rendered songs with exact
 * truth. Riffs are wrong as a whole, so that none of their strums may be surer.
 */
const STRINGS_WRONG = 0.08;
/** Where it is asked which of many to look at first, those that are as good as sure are told apart down to this. */
export const STRINGS_LEAST_WRONG = 0.055;
/** Log-odds over which that happens. */
const TELLS_APART = 6;
const LEAST_SHARE = 1e-12;

/** What is known of a strum besides its notes. */
export interface DoublingPlace {
  /** Riff that it stands in; '' outside of all. */
  readonly riff: string;
  readonly palmMuted: boolean;
}

/** Calls back for each lowest note and doubling with where both numbers of strings stand. */
function forDoublings(
  length: number,
  each: (plain: number, withOctave: number, doubling: number) => void,
): void {
  for (let bass = 0, at = 0; bass < length; bass += CHORD_SHAPES.length) {
    for (const { plain, withOctave } of DOUBLINGS) each(bass + plain, bass + withOctave, at++);
  }
}

/** Log-odds of the octave, and the probability that it is one of these shapes at all. */
function doublingOf(logProbabilities: Float32Array): { readonly odds: number; readonly share: number } {
  let [plain, withOctave] = [-Infinity, -Infinity];
  forDoublings(logProbabilities.length, (onePlain, oneWithOctave) => {
    plain = logAdd(plain, logProbabilities[onePlain]);
    withOctave = logAdd(withOctave, logProbabilities[oneWithOctave]);
  });
  return { odds: withOctave - plain, share: Math.exp(logAdd(plain, withOctave)) };
}

/**
 * By how much the octave becomes likelier in each strum, as a change of its log-odds: what the strums of its riff say together,
 * muted ones and others apart. `logProbabilities` of all readings, index as in ChordEvidence; 0 where neither the riff nor the
 * hand says anything.
 */
export function doublingPulls(
  logProbabilities: readonly Float32Array[],
  places: readonly DoublingPlace[],
): number[] {
  const groups = new Map<string, { odds: number; share: number }>();
  const groupOf = ({ riff, palmMuted }: DoublingPlace): string => `${riff}/${palmMuted}`;
  places.forEach((place, k) => {
    if (place.riff === '') return;
    const { odds, share } = doublingOf(logProbabilities[k]);
    const sum = groups.get(groupOf(place)) ?? { odds: 0, share: 0 };
    sum.odds += share * Math.max(-MOST_LOG_ODDS, Math.min(MOST_LOG_ODDS, odds));
    sum.share += share;
    groups.set(groupOf(place), sum);
  });
  return places.map((place) => {
    const { odds = 0, share = 0 } = groups.get(groupOf(place)) ?? {};
    const pull = share === 0 ? 0 : (WEIGHT * odds) / Math.sqrt(share);
    return Math.max(-MOST_PULL, Math.min(MOST_PULL, pull)) - (place.palmMuted ? MUTED_AGAINST : 0);
  });
}

/** Log-odds of the octave, for each lowest note and doubling. */
export function doublingOdds(logProbabilities: Float32Array): number[] {
  const odds: number[] = [];
  forDoublings(logProbabilities.length, (plain, withOctave) => {
    odds.push(logProbabilities[withOctave] - logProbabilities[plain]);
  });
  return odds;
}

/** Gives each doubling these log-odds, in place; what it has with and without the octave stays, and so do all other readings. */
export function setDoublingOdds(logProbabilities: Float32Array, odds: readonly number[]): void {
  forDoublings(logProbabilities.length, (plain, withOctave, doubling) => {
    const both = logAdd(logProbabilities[plain], logProbabilities[withOctave]);
    logProbabilities[plain] = both - logAdd(0, odds[doubling]);
    logProbabilities[withOctave] = both - logAdd(0, -odds[doubling]);
  });
}

/** Moves the log-odds of the octave, in place. */
export function pullDoubling(logProbabilities: Float32Array, pull: number): void {
  if (pull === 0) return;
  setDoublingOdds(
    logProbabilities,
    doublingOdds(logProbabilities).map((odds) => odds + pull),
  );
}

/** Log-odds as they are up to those of {@link STRINGS_WRONG}, and beyond them on to those of `leastWrong`. */
function tamed(odds: number, leastWrong: number): number {
  const [knee, most] = [STRINGS_WRONG, leastWrong].map((p) => -logOdds(p, LEAST_SHARE));
  const beyond = Math.abs(odds) - knee;
  return beyond <= 0 ? odds : Math.sign(odds) * (knee + (most - knee) * Math.tanh(beyond / TELLS_APART));
}

/** Gives the other number of strings its least probability, in place; the sum of both stays. */
export function doubtStrings(posterior: Float32Array, leastWrong = STRINGS_WRONG): void {
  forDoublings(posterior.length, (plain, withOctave) => {
    const both = posterior[plain] + posterior[withOctave];
    if (both === 0) return;
    const share = both * logistic(tamed(logOdds(posterior[plain] / both, LEAST_SHARE), leastWrong));
    [posterior[plain], posterior[withOctave]] = [share, both - share];
  });
}
