/**
 * How far two bars are the same. Where the strums of a song come back as they were, they alone say it: rhythm and mutes tell
 * riffs apart that share their chords. Where they are heard otherwise each time, as on most records, what sounds as a whole says
 * most of it (`bar-harmony.ts`).
 */
import { median } from '../../dsp';
import { barSimilarity, type BarContent } from './bar-contents';
import { chromaSimilarity, type BarChroma } from './bar-chroma';

/** Most that the sound of the whole counts; the rest is the strums. */
const MOST_HARMONY = 0.8;
/**
 * How like the middle bar (the median) is to the bar most like it: from the first on the strums of a song come back, under the
 * second they do not. Rendered songs have 1.0, real ones .73 to .86.
 */
const STEADY = 0.97;
const UNSTEADY = 0.85;
/** Bars apart that are compared for this, so that the cost stays linear in long recordings. */
const REACH = 160;
const SHIFTS = 12;

/** 0 different, 1 the same, when the bar `earlier` is moved up by `shift` semitones, 0 to 11. */
export type BarLikeness = (earlier: number, later: number, shift: number) => number;

/** 0 where the strums of most bars are heard again elsewhere, 1 where they are not. */
function unsteadiness(contents: readonly BarContent[]): number {
  const best = new Float32Array(contents.length);
  contents.forEach((bar, later) => {
    for (let earlier = Math.max(0, later - REACH); earlier < later; earlier++) {
      const likeness = barSimilarity(contents[earlier], bar, 0);
      if (likeness > best[earlier]) best[earlier] = likeness;
      if (likeness > best[later]) best[later] = likeness;
    }
  });
  const middle = median(best.filter((_, i) => contents[i].length > 0));
  return middle === null ? 0 : Math.min(1, Math.max(0, (STEADY - middle) / (STEADY - UNSTEADY)));
}

/** `harmony` of the same bars; null: the strums alone. Remembers what it has compared. */
export function barLikeness(
  contents: readonly BarContent[],
  harmony: readonly BarChroma[] | null,
): BarLikeness {
  const share = harmony ? MOST_HARMONY * unsteadiness(contents) : 0;
  const compare: BarLikeness = (earlier, later, shift) => {
    const struck = barSimilarity(contents[earlier], contents[later], shift);
    if (!harmony || share === 0) return struck;
    return (1 - share) * struck + share * chromaSimilarity(harmony[earlier], harmony[later], shift);
  };
  const known = new Map<number, Float32Array>();
  return (earlier, later, shift) => {
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
