/**
 * How far two bars are the same. Where the strums of a song come back as they were, they alone say it: rhythm and mutes tell
 * riffs apart that share their chords. Where they are heard otherwise each time, as on most records, what sounds as a whole says
 * most of it (`bar-chroma.ts`).
 */
import { quantileSorted } from 'd3-array';
import { median } from '../../dsp';
import { clamp } from '../../units';
import { barSimilarity, type BarContent } from './bar-contents';
import { chromaSimilarity, type BarChroma } from './bar-chroma';

/** Most that the sound of the whole counts; the rest is the strums. */
const MOST_HARMONY = 0.8;
/**
 * How like the middle bar (the median) is to the bar most like it: from the first on the strums of a song come back, under the
 * second they do not. Of 82 rendered songs 64 have 1.0, the real ones .77 to .84.
 */
const STEADY = 0.97;
const UNSTEADY = 0.85;
/** Bars apart that are compared for this, and remembered, so that the cost stays linear in long recordings. */
const REACH = 160;
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
const SHIFTS = 12;

/** 0 different, 1 the same, when the bar `earlier` is moved up by `shift` semitones, 0 to 11. */
export type BarLikeness = (earlier: number, later: number, shift: number) => number;

/** 0 where the strums of most bars are heard again elsewhere, also moved up the neck, 1 where they are not. */
function unsteadiness(contents: readonly BarContent[]): number {
  const best = new Float32Array(contents.length);
  contents.forEach((bar, later) => {
    for (let earlier = Math.max(0, later - REACH); earlier < later; earlier++) {
      for (let shift = 0; shift < SHIFTS && Math.min(best[earlier], best[later]) < 1; shift++) {
        const likeness = barSimilarity(contents[earlier], bar, shift);
        if (likeness > best[earlier]) best[earlier] = likeness;
        if (likeness > best[later]) best[later] = likeness;
      }
    }
  });
  const middle = median(best.filter((_, i) => contents[i].length > 0));
  return middle === null ? 0 : Math.min(1, Math.max(0, (STEADY - middle) / (STEADY - UNSTEADY)));
}

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

/** `harmony` of the same bars; null: the strums alone. Remembers what it has compared. */
export function barLikeness(
  contents: readonly BarContent[],
  harmony: readonly BarChroma[] | null,
): BarLikeness {
  const share = harmony ? MOST_HARMONY * unsteadiness(contents) : 0;
  const evenOdds = harmony && share > 0 ? evenOddsCosine(harmony) : 0;
  const compare: BarLikeness = (earlier, later, shift) => {
    const struck = barSimilarity(contents[earlier], contents[later], shift);
    if (!harmony || share === 0) return struck;
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
