/**
 * Groups strums at the same position of bars that are the same: of repeated passes, within a riff, across riffs. A bar that has little in common with
 * another is left out of its group: the section may begin a bar earlier or later than it was drawn.
 */
import { barSimilarity, type BarContent } from './bar-contents';
import type { HeardSection, RepetitionGroup } from '../types';

/** Instants this near in time, measured from the start of their bar, are at the same place. */
const SAME_PLACE_S = 0.06;
/** Bars of two passes that agree less are not the same bar; bars of two riffs at the same tempo agree by .1 to .3. */
const SAME_BAR = 0.4;

interface Place {
  readonly bar: number;
  readonly atS: number;
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

/** What the first hearing has told of the form. */
export interface KnownSections {
  readonly sections: readonly HeardSection[];
  /** For each bar the earliest that it is the same as; empty in analyses of before, where the same bar of the same riff is. */
  readonly sameAsBar: readonly number[];
}

/** Bars that are the same, for each bar of the song; a bar outside of all sections is alone. */
function sameBars(
  { sections, sameAsBar }: KnownSections,
  count: number,
  bars: readonly BarContent[] | null,
): number[][] {
  const groups = new Map<string, number[]>();
  const add = (key: string, bar: number): void => void groups.set(key, [...(groups.get(key) ?? []), bar]);
  if (sameAsBar.length > 0) sameAsBar.slice(0, count).forEach((first, bar) => add(String(first), bar));
  else {
    for (const { riff, bar, bars: length } of passesOf(sections)) {
      for (let b = 0; b < length && bar + b < count; b++) add(`${riff}/${b}`, bar + b);
    }
  }
  const same = Array.from({ length: count }, (_, b) => [b]);
  const isSame = (a: number, b: number): boolean =>
    a === b || !bars || barSimilarity(bars[a], bars[b], 0) >= SAME_BAR;
  for (const group of groups.values()) {
    for (const bar of group) same[bar] = group.filter((other) => isSame(bar, other));
  }
  return same;
}

/**
 * For each instant (ascending) its group; one outside of all sections is alone in it. Moved repeats count as
 * riffs of their own: their notes differ. `bars` is what each bar was heard to play so far; without it, bars that a section
 * says are the same are.
 */
export function groupRepetitions(
  timesS: readonly number[],
  known: KnownSections,
  downbeatsS: readonly number[],
  bars: readonly BarContent[] | null = null,
): RepetitionGroup[] {
  const same = sameBars(known, downbeatsS.length, bars);
  const inBar = downbeatsS.map((): number[] => []);
  let bar = -1;
  const places = timesS.map((timeS, k): Place | null => {
    while (bar + 1 < downbeatsS.length && downbeatsS[bar + 1] <= timeS + SAME_PLACE_S / 2) bar++;
    if (bar < 0) return null;
    inBar[bar].push(k);
    return { bar, atS: timeS - downbeatsS[bar] };
  });
  const riffs = new Array<string>(downbeatsS.length).fill('');
  for (const { label, transposeOf, startBar, barsPerPass, passes, cutBars } of known.sections) {
    riffs.fill(transposeOf?.label ?? label, startBar, startBar + barsPerPass * passes - cutBars);
  }
  return places.map((place, k) => {
    if (!place) return { members: [k], passes: 1, riff: '' };
    const others = same[place.bar].filter((b) => b !== place.bar);
    const members = others.flatMap((b) => {
      let [nearest, distance] = [-1, SAME_PLACE_S];
      for (const other of inBar[b]) {
        const away = Math.abs(places[other]!.atS - place.atS);
        if (away < distance) [nearest, distance] = [other, away];
      }
      return nearest < 0 ? [] : [nearest];
    });
    return { members: [k, ...members], passes: others.length + 1, riff: riffs[place.bar] };
  });
}
