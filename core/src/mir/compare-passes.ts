/**
 * Where a pass of a riff differs from the others: a strum that most passes have and this one lacks, one that it has
 * alone, another chord, another mute, or an end before the others end. What most passes do is the riff.
 */
import { groupAlike } from './alike';
import type { HeardSection, HeardStrum } from './types';

export type PassDifferenceKind = 'missing' | 'extra' | 'chord' | 'mute' | 'early-end';

export interface PassDifference {
  readonly kind: PassDifferenceKind;
  /** Where it is heard, or would be. */
  readonly timeS: number;
  /** Index of the strum, null where there is none. */
  readonly strum: number | null;
  /** Sounding notes that most passes have there; null where they have nothing, [] for a dead stroke. */
  readonly usual: readonly number[] | null;
}

export interface HeardPass {
  readonly startS: number;
  readonly endS: number;
  readonly differences: readonly PassDifference[];
}

/** A strum this little before the bar line belongs to the bar that it comes early for. */
const EARLY_S = 0.03;
/** A pass that lacks at least this many strums in a row at its end has ended early. */
const EARLY_END_FROM = 2;

interface Pass {
  readonly startS: number;
  readonly endS: number;
  readonly section: number;
}

function chordOf({ midi, dead }: HeardStrum): string {
  return dead ? 'x' : midi.join();
}

/** The value that most have, by count; the first of them when two are as frequent. */
function mostUsual<T>(values: readonly T[]): { value: T; count: number } {
  const counts = new Map<T, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  let best = { value: values[0], count: 0 };
  for (const [value, count] of counts) if (count > best.count) best = { value, count };
  return best;
}

function passesOf(
  sections: readonly HeardSection[],
  downbeatsS: readonly number[],
  durationS: number,
): Pass[] {
  return sections.flatMap((section, s) =>
    Array.from({ length: section.passes }, (_, p) => {
      const bar = section.startBar + p * section.barsPerPass;
      return {
        section: s,
        startS: downbeatsS[bar],
        endS: downbeatsS[bar + section.barsPerPass] ?? durationS,
      };
    }),
  );
}

/**
 * The passes of each section in order. A riff that is played once, or whose passes are all different, has no
 * differences. Moved repeats are compared among themselves.
 */
export function comparePasses(
  strums: readonly HeardStrum[],
  sections: readonly HeardSection[],
  downbeatsS: readonly number[],
  durationS: number,
): HeardPass[][] {
  const passes = passesOf(sections, downbeatsS, durationS);
  const alike = groupAlike(
    strums.map((s) => s.timeS),
    sections,
    downbeatsS,
  );
  const passOf = placeInPasses(strums, passes);
  const found: PassDifference[][] = passes.map(() => []);
  const isUsual = alike.map(({ members, passes: count }) => count > 1 && 2 * members.length > count);

  strums.forEach((strum, k) => {
    const pass = passOf[k];
    const { members, passes: count } = alike[k];
    if (pass < 0 || count < 2) return;
    if (!isUsual[k]) {
      // Of two passes neither is the usual one; only what is alone among three is extra.
      if (count > 2) found[pass].push({ kind: 'extra', timeS: strum.timeS, strum: k, usual: null });
      return;
    }
    const chord = mostUsual(members.map((m) => chordOf(strums[m])));
    const model = strums[members.find((m) => chordOf(strums[m]) === chord.value)!];
    if (chordOf(strum) !== chord.value && 2 * chord.count > members.length) {
      found[pass].push({ kind: 'chord', timeS: strum.timeS, strum: k, usual: model.midi });
      return;
    }
    const mute = mostUsual(members.map((m) => strums[m].palmMuted));
    if (strum.palmMuted !== mute.value && 2 * mute.count > members.length) {
      found[pass].push({ kind: 'mute', timeS: strum.timeS, strum: k, usual: strum.midi });
    }
  });

  const done = new Set<number>();
  strums.forEach((strum, k) => {
    if (!isUsual[k] || done.has(k)) return;
    alike[k].members.forEach((m) => done.add(m));
    const own = passOf[k];
    if (own < 0) return;
    const present = new Set(alike[k].members.map((m) => passOf[m]));
    passes.forEach(({ startS, section }, p) => {
      if (present.has(p) || !isSameRiff(sections[section], sections[passes[own].section])) return;
      const timeS = startS + (strum.timeS - passes[own].startS);
      found[p].push({ kind: 'missing', timeS, strum: null, usual: strum.midi });
    });
  });

  const lastStrumS = passes.map(() => -Infinity);
  strums.forEach(({ timeS }, k) => {
    if (passOf[k] >= 0) lastStrumS[passOf[k]] = timeS;
  });
  return sections.map((_, s) =>
    passes.flatMap(({ startS, endS, section }, p) => {
      if (section !== s) return [];
      const inOrder = [...found[p]].sort((a, b) => a.timeS - b.timeS);
      return [{ startS, endS, differences: joinEarlyEnd(inOrder, lastStrumS[p]) }];
    }),
  );
}

/** Index of the pass that each strum is in, -1 for none; passes are in order of time. */
function placeInPasses(strums: readonly HeardStrum[], passes: readonly Pass[]): number[] {
  let at = 0;
  return strums.map(({ timeS }) => {
    while (at < passes.length && timeS > passes[at].endS - EARLY_S) at++;
    return at < passes.length && timeS > passes[at].startS - EARLY_S ? at : -1;
  });
}

function isSameRiff(a: HeardSection, b: HeardSection): boolean {
  return a.label === b.label && a.barsPerPass === b.barsPerPass;
}

/** Missing strums after the last one of the pass, said once. */
function joinEarlyEnd(differences: readonly PassDifference[], lastStrumS: number): PassDifference[] {
  const after = differences.filter((d) => d.kind === 'missing' && d.timeS > lastStrumS);
  if (after.length < EARLY_END_FROM) return [...differences];
  return [...differences.filter((d) => !after.includes(d)), { ...after[0], kind: 'early-end' }];
}
