/** What stands at the same place of the same riff, in all its passes, says the same. */
import type { HeardSection } from './types';

/** Instants this near in time, measured from the start of their bar, are at the same place. */
const SAME_PLACE_S = 0.06;

interface Place {
  /** Riff and bar in its pass. */
  readonly key: string;
  readonly passIndex: number;
  readonly atS: number;
  /** How often the riff is played in the song. */
  readonly passes: number;
}

interface PassBars {
  readonly riff: string;
  readonly bar: number;
  readonly bars: number;
}

function passesOf(sections: readonly HeardSection[]): PassBars[] {
  return sections.flatMap(({ label, barsPerPass, startBar, passes }) =>
    Array.from({ length: passes }, (_, p) => ({
      riff: `${label}/${barsPerPass}`,
      bar: startBar + p * barsPerPass,
      bars: barsPerPass,
    })),
  );
}

function placesOf(
  timesS: readonly number[],
  sections: readonly HeardSection[],
  downbeatsS: readonly number[],
): (Place | null)[] {
  const passes = passesOf(sections);
  const count = new Map<string, number>();
  for (const { riff } of passes) count.set(riff, (count.get(riff) ?? 0) + 1);
  let bar = -1;
  return timesS.map((timeS) => {
    while (bar + 1 < downbeatsS.length && downbeatsS[bar + 1] <= timeS + SAME_PLACE_S / 2) bar++;
    const passIndex = passes.findIndex((p) => bar >= p.bar && bar < p.bar + p.bars);
    if (passIndex < 0) return null;
    const { riff, bar: first } = passes[passIndex];
    return {
      key: `${riff}/${bar - first}`,
      passIndex,
      atS: timeS - downbeatsS[bar],
      passes: count.get(riff) ?? 1,
    };
  });
}

export interface AlikeGroup {
  /** Indices of those alike, itself first; at most one of each pass. */
  readonly members: readonly number[];
  /** How often the riff is played: passes without a member have nothing there. */
  readonly passes: number;
}

/**
 * For each instant (ascending) those alike; one outside of all sections is alike to itself alone. Moved repeats count as
 * riffs of their own: their notes differ.
 */
export function groupAlike(
  timesS: readonly number[],
  sections: readonly HeardSection[],
  downbeatsS: readonly number[],
): AlikeGroup[] {
  const places = placesOf(timesS, sections, downbeatsS);
  const byKey = new Map<string, number[]>();
  places.forEach((place, k) => {
    if (!place) return;
    const known = byKey.get(place.key);
    if (known) known.push(k);
    else byKey.set(place.key, [k]);
  });
  return places.map((place, k) => {
    if (!place) return { members: [k], passes: 1 };
    const nearest = new Map<number, { index: number; distance: number }>();
    for (const other of byKey.get(place.key) ?? []) {
      const { atS, passIndex } = places[other]!;
      const distance = Math.abs(atS - place.atS);
      if (passIndex === place.passIndex || distance >= SAME_PLACE_S) continue;
      if (distance < (nearest.get(passIndex)?.distance ?? Infinity)) {
        nearest.set(passIndex, { index: other, distance });
      }
    }
    return { members: [k, ...[...nearest.values()].map((n) => n.index)], passes: place.passes };
  });
}
