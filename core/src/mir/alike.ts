/** Strums that say the same: those that stand at the same place of the same riff, in all its passes. */
import type { HeardSection } from './types';

/** Strums this near in time, measured from the start of their bar, are at the same place. */
const SAME_PLACE_S = 0.06;

/**
 * For each strum the indices of those alike, with itself; a strum outside of all sections is alike to itself alone.
 * Moved repeats count as riffs of their own: their notes differ.
 */
export function groupAlike(
  timesS: readonly number[],
  sections: readonly HeardSection[],
  downbeatsS: readonly number[],
): number[][] {
  const groups = timesS.map((_, k) => [k]);
  const passes = sections.flatMap((section) =>
    Array.from({ length: section.passes }, (_, p) => {
      const bar = section.startBar + p * section.barsPerPass;
      return { label: section.label, bars: section.barsPerPass, bar };
    }),
  );
  const barOf = (timeS: number): number => {
    let bar = -1;
    while (bar + 1 < downbeatsS.length && downbeatsS[bar + 1] <= timeS + SAME_PLACE_S / 2) bar++;
    return bar;
  };
  const places = timesS.map((timeS) => {
    const bar = barOf(timeS);
    const pass = passes.find((p) => bar >= p.bar && bar < p.bar + p.bars);
    return pass
      ? { key: `${pass.label}/${pass.bars}/${bar - pass.bar}`, atS: timeS - downbeatsS[bar] }
      : null;
  });
  const byKey = new Map<string, number[]>();
  places.forEach((place, k) => {
    if (place) byKey.set(place.key, [...(byKey.get(place.key) ?? []), k]);
  });
  places.forEach((place, k) => {
    if (!place) return;
    for (const other of byKey.get(place.key) ?? []) {
      const near = Math.abs((places[other]?.atS ?? Infinity) - place.atS) < SAME_PLACE_S;
      if (other !== k && near) groups[k].push(other);
    }
  });
  return groups;
}
