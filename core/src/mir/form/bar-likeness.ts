/** How far two bars are the same: by their strums, or by what the whole band sounds like (`bar-chroma.ts`), or something of both. */
import { quantileSorted } from 'd3-array';
import { clamp } from '../../units';
import { barSimilarity, type BarContent } from './bar-contents';
import { chromaSimilarity, type BarChroma } from './bar-chroma';

/** Bars apart that are compared, and remembered, so that the cost stays linear in long recordings. */
export const REACH = 160;
/**
 * Two bars sound the same as likely as not this many spreads over what two bars of the song have in common as a rule. The place moves with the song: the
 * cosine from which .4 of the pairs are found that are the same in the guitar stem is .52 to .67 in the four real songs.
 */
const SPREADS = 2;
/** In a song whose bars have nothing in common a little of it would be the same. */
const LEAST_EVEN_ODDS = 0.35;
/** Cosine from "as likely as not" to "the same". */
const SAME_AFTER = 0.2;
/** Half of a normal distribution lies within this many standard deviations of its middle. */
const QUARTILE = 0.674;
export const SHIFTS = 12;

/** 0 different, 1 the same, when the bar `earlier` is moved up by `shift` semitones, 0 to 11. */
export type BarLikeness = (earlier: number, later: number, shift: number) => number;

/** Cosine at which two bars of this song sound the same as likely as not. Pairs that are the same are few, so the lower half is that of those that are not. */
function evenOddsCosine(harmony: readonly BarChroma[]): number {
  const cosines = harmony
    .flatMap((bar, later) =>
      harmony.slice(Math.max(0, later - REACH), later).map((earlier) => chromaSimilarity(earlier, bar, 0)),
    )
    .sort((a, b) => a - b);
  const middle = quantileSorted(cosines, 0.5) ?? 0;
  const quarter = quantileSorted(cosines, 0.25) ?? 0;
  return Math.max(LEAST_EVEN_ODDS, middle + (SPREADS * (middle - quarter)) / QUARTILE);
}

/** `share` of what the band sounds like, 0 to 1; the rest is the strums. Remembers what it has compared. */
export function barLikeness(
  contents: readonly BarContent[],
  harmony: readonly BarChroma[],
  share: number,
): BarLikeness {
  const evenOdds = share > 0 ? evenOddsCosine(harmony) : 0;
  const compare: BarLikeness = (earlier, later, shift) => {
    const struck = barSimilarity(contents[earlier], contents[later], shift);
    if (share === 0) return struck;
    const over = chromaSimilarity(harmony[earlier], harmony[later], shift) - evenOdds;
    return (1 - share) * struck + share * clamp(0.5 + over / (2 * SAME_AFTER), 0, 1);
  };
  const known = new Map<number, Float32Array>();
  return (earlier, later, shift) => {
    // Only near pairs are asked about again and again.
    if (Math.abs(later - earlier) > REACH) return compare(earlier, later, shift);
    const pair = earlier * contents.length + later;
    let shifts = known.get(pair);
    if (!shifts) {
      shifts = new Float32Array(SHIFTS).fill(-1);
      known.set(pair, shifts);
    }
    if (shifts[shift] < 0) shifts[shift] = compare(earlier, later, shift);
    return shifts[shift];
  };
}
