/** What each bar plays, and how far two bars play the same, also when one is moved by some semitones. */
import { EARLY_S } from '../../units';
import type { HeardStrum } from '../types';

/** Strums this near, in parts of a bar, are at the same place. */
const SAME_PLACE = 0.035;
/** How far a strum agrees that has the same root in another octave, another chord, or another mute. */
const OTHER_OCTAVE = 0.8;
const OTHER_CHORD = 0.15;
const OTHER_MUTE = 0.75;

interface BarStrum {
  /** Place in the bar, 0 to 1. */
  readonly at: number;
  readonly bass: number | null;
  readonly rootPc: number | null;
  readonly palmMuted: boolean;
}

export type BarContent = readonly BarStrum[];

/** Bars are [downbeats[i], downbeats[i + 1]); strums before the first downbeat belong to no bar. */
export function barContents(
  strums: readonly HeardStrum[],
  downbeatsS: readonly number[],
  durationS: number,
): BarContent[] {
  const bars: BarStrum[][] = downbeatsS.map(() => []);
  let bar = -1;
  for (const { timeS, midi, rootPc, palmMuted } of strums) {
    while (bar + 1 < downbeatsS.length && downbeatsS[bar + 1] <= timeS + EARLY_S) bar++;
    if (bar < 0) continue;
    const startS = downbeatsS[bar];
    const endS = downbeatsS[bar + 1] ?? durationS;
    bars[bar].push({ at: (timeS - startS) / (endS - startS), bass: midi[0] ?? null, rootPc, palmMuted });
  }
  return bars;
}

function agreement(a: BarStrum, b: BarStrum, shift: number): number {
  const mute = a.palmMuted === b.palmMuted ? 1 : OTHER_MUTE;
  if (a.rootPc === null || b.rootPc === null) return a.rootPc === b.rootPc ? 1 : OTHER_CHORD;
  if ((a.rootPc + shift + 12) % 12 !== b.rootPc) return OTHER_CHORD * mute;
  const semitones = (b.bass ?? 0) - (a.bass ?? 0);
  return (semitones === shift || semitones === shift - 12 ? 1 : OTHER_OCTAVE) * mute;
}

/** Share of the strums of two bars that agree when the first is moved up by `shift` semitones, 0 to 11. */
export function barSimilarity(a: BarContent, b: BarContent, shift: number): number {
  let [i, j, places, agreeing] = [0, 0, 0, 0];
  while (i < a.length || j < b.length) {
    places++;
    const distance = i < a.length && j < b.length ? a[i].at - b[j].at : i < a.length ? -1 : 1;
    if (Math.abs(distance) <= SAME_PLACE) agreeing += agreement(a[i++], b[j++], shift);
    else if (distance < 0) i++;
    else j++;
  }
  return places === 0 ? 1 : agreeing / places;
}
