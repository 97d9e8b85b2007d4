/**
 * A pass as it was heard against the riff as it is written: both are lists of strums in ticks, aligned by dynamic
 * programming (Needleman and Wunsch 1970, "A general method applicable to the search for similarities in the amino acid
 * sequence of two proteins"), so that one strum more or less does not put all others out of step.
 */
import type { Tuning } from '../guitar';
import { isBlank, isStruck, SIXTEENTH, strumNotes, type Riff, type Strum } from '../riff';
import { identifyChord, type Chord } from '../theory';
import { TICKS_PER_QUARTER, type Ticks } from '../units';
import type { HeardStroke } from './place';

export type Verdict = 'agrees' | 'doubtful' | 'clashes' | 'missing' | 'unchecked';

export interface StrumVerdict {
  readonly strumId: string;
  readonly verdict: Verdict;
  /** Index of what was heard there; null for nothing. */
  readonly heard: number | null;
}

export interface Difference {
  readonly kind: 'missing' | 'extra' | 'chord' | 'mute' | 'early-end';
  /** Where, in ticks of the riff. */
  readonly ticks: Ticks;
  /** The written strum, null for one that is not written. */
  readonly strumId: string | null;
  /** Index of what was heard, null for nothing. */
  readonly heard: number | null;
  /** That it is one, 0 to 1. */
  readonly probability: number;
}

export interface PassComparison {
  /** For each strum of the riff, in order. */
  readonly verdicts: readonly StrumVerdict[];
  /** In order of time. */
  readonly differences: readonly Difference[];
}

/** Strums farther apart than this are not the same one: under a sixteenth, so that neighbours are not exchanged. */
const SAME_STROKE_TICKS = 0.22 * TICKS_PER_QUARTER;
/** Cost of leaving a strum without a partner, in units of the worst match. */
const SKIP = 0.75;
/** Chords this far apart are not the same chord. */
export const OTHER_CHORD_FROM = 0.5;
/** A chord heard with less confidence contradicts nothing. */
const SURE = 0.5;
/** A pass that lacks this many strums in a row at its end has ended early. */
const EARLY_END_FROM = 2;
/** Differences of this sum of probabilities are worth a question: one sure other chord, or two strums more or less. */
const NOTABLE = 0.8;
/** How far one difference is believed; dead strokes and mutes are the least reliable to hear (docs/accuracy.md). */
const PROBABILITY = { missing: 0.5, missingDead: 0.25, mute: 0.25 } as const;

/** How far apart two chords are heard: 0 the same, 1 nothing in common; null is silence. */
export function chordDistance(a: Chord | null, b: Chord | null): number {
  if (!a || !b) return a === b ? 0 : 1;
  if (a.rootPc !== b.rootPc) return 1;
  if (a.quality === b.quality) return a.bassPc === b.bassPc ? 0 : 0.3;
  // A root alone, an octave and a fifth on it are heard for each other.
  const bare = ['5', 'oct', 'single'];
  return bare.includes(a.quality) && bare.includes(b.quality) ? 0.3 : 0.7;
}

/** What was heard stays while the riff is written: its chords are named once. */
const CHORDS = new WeakMap<HeardStroke, Chord | null>();

function chordOfStroke(stroke: HeardStroke): Chord | null {
  let chord = CHORDS.get(stroke);
  if (chord === undefined) CHORDS.set(stroke, (chord = identifyChord(stroke.midi)));
  return chord;
}

/** The struck strums of a riff with their chords. */
interface Written {
  readonly tuning: Tuning;
  readonly strums: readonly Strum[];
  readonly chords: readonly (Chord | null)[];
}

/** Forty passes are compared with one riff: its chords are named once. */
const WRITTEN = new WeakMap<Riff, Written>();

function writtenOf(riff: Riff, tuning: Tuning): Written {
  const known = WRITTEN.get(riff);
  if (known?.tuning === tuning) return known;
  const strums = riff.strums.filter((s) => !s.rest);
  const written = { tuning, strums, chords: strums.map((s) => identifyChord(strumNotes(s, tuning))) };
  WRITTEN.set(riff, written);
  return written;
}

/** 0 for the same chord, 1 for another; dead strokes and notes are apart. */
function soundDistance(
  strum: Strum,
  heard: HeardStroke,
  writtenChord: Chord | null,
  heardChord: Chord | null,
): number {
  if (isBlank(strum)) return 0;
  if (strum.dead || heard.dead) return strum.dead === heard.dead ? 0 : 0.6;
  return chordDistance(writtenChord, heardChord);
}

/** For each written strum the index of its partner, null for none. */
function align(
  written: readonly Strum[],
  heard: readonly HeardStroke[],
  costOf: (w: number, h: number) => number,
): (number | null)[] {
  const [rows, columns] = [written.length + 1, heard.length + 1];
  const cost = new Float64Array(rows * columns);
  const at = (w: number, h: number): number => w * columns + h;
  for (let w = 1; w < rows; w++) cost[at(w, 0)] = w * SKIP;
  for (let h = 1; h < columns; h++) cost[at(0, h)] = h * SKIP;
  for (let w = 1; w < rows; w++) {
    for (let h = 1; h < columns; h++) {
      cost[at(w, h)] = Math.min(
        cost[at(w - 1, h)] + SKIP,
        cost[at(w, h - 1)] + SKIP,
        cost[at(w - 1, h - 1)] + costOf(w - 1, h - 1),
      );
    }
  }
  const partners = new Array<number | null>(written.length).fill(null);
  let [w, h] = [written.length, heard.length];
  while (w > 0 && h > 0) {
    if (cost[at(w, h)] === cost[at(w - 1, h - 1)] + costOf(w - 1, h - 1)) partners[--w] = --h;
    else if (cost[at(w, h)] === cost[at(w - 1, h)] + SKIP) w--;
    else h--;
  }
  return partners;
}

function judge(strum: Strum, heard: HeardStroke, distance: number): Verdict {
  if (isBlank(strum)) return 'unchecked';
  if (distance >= OTHER_CHORD_FROM) return heard.confidence >= SURE && !heard.dead ? 'clashes' : 'doubtful';
  if (heard.confidence < SURE || (!strum.dead && strum.palmMute !== heard.palmMuted)) return 'doubtful';
  return 'agrees';
}

/** Both lists in order of time. Rests are neither expected nor missed. */
export function comparePass(riff: Riff, heard: readonly HeardStroke[], tuning: Tuning): PassComparison {
  const { strums: written, chords: writtenChords } = writtenOf(riff, tuning);
  const heardChords = heard.map(chordOfStroke);
  const distanceOf = (w: number, h: number): number =>
    soundDistance(written[w], heard[h], writtenChords[w], heardChords[h]);
  const partners = align(written, heard, (w, h) => {
    const apart = Math.abs(written[w].startTicks - heard[h].ticks) / SAME_STROKE_TICKS;
    return apart > 1 ? Infinity : 0.5 * apart + 0.5 * distanceOf(w, h);
  });

  const differences: Difference[] = [];
  const verdicts = written.map((strum, w): StrumVerdict => {
    const h = partners[w];
    const { id: strumId, startTicks: ticks } = strum;
    if (h === null) {
      if (!isStruck(strum)) return { strumId, heard: null, verdict: 'unchecked' };
      const probability = strum.dead ? PROBABILITY.missingDead : PROBABILITY.missing;
      if (!isBlank(strum)) differences.push({ kind: 'missing', ticks, strumId, heard: null, probability });
      return { strumId, heard: null, verdict: 'missing' };
    }
    const verdict = judge(strum, heard[h], distanceOf(w, h));
    // Doubts add up to no certainty: two chords half believed are no question.
    if (verdict === 'clashes') {
      differences.push({ kind: 'chord', ticks, strumId, heard: h, probability: heard[h].confidence ** 2 });
    } else if (!strum.dead && !heard[h].dead && !isBlank(strum) && strum.palmMute !== heard[h].palmMuted) {
      differences.push({ kind: 'mute', ticks, strumId, heard: h, probability: PROBABILITY.mute });
    }
    return { strumId, heard: h, verdict };
  });
  const used = new Set(partners);
  heard.forEach((stroke, h) => {
    if (used.has(h) || stroke.confidence < SURE) return;
    const probability = (stroke.dead ? PROBABILITY.missingDead : PROBABILITY.missing) * stroke.confidence;
    differences.push({ kind: 'extra', ticks: stroke.ticks, strumId: null, heard: h, probability });
  });
  differences.sort((a, b) => a.ticks - b.ticks);

  const lastHeard = heard.at(-1)?.ticks ?? -Infinity;
  const tail = differences.filter((d) => d.kind === 'missing' && d.ticks > lastHeard);
  const endsEarly = heard.length > 0 && tail.length >= EARLY_END_FROM;
  const said = endsEarly
    ? [
        ...differences.filter((d) => !tail.includes(d)),
        { ...tail[0], kind: 'early-end' as const, probability: 1 },
      ]
    : differences;
  return { verdicts, differences: said };
}

/** The same difference in another pass. */
function sameIn({ kind, ticks, strumId }: Difference): string {
  return `${kind} ${strumId ?? Math.round(ticks / SIXTEENTH)}`;
}

/**
 * What each pass has that most other passes of the riff have not. What most differ in is a matter of the writing, or of the
 * hearing, and no reason to call one of them a variation; the same for a riff that is played once.
 */
export function ownDifferences(passes: readonly PassComparison[]): Difference[][] {
  const counts = new Map<string, number>();
  for (const { differences } of passes) {
    for (const key of new Set(differences.map(sameIn))) counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return passes.map(({ differences }) =>
    differences.filter((d) => passes.length > 1 && 2 * (counts.get(sameIn(d)) ?? 0) <= passes.length),
  );
}

/**
 * What more than half of the passes play otherwise than it is written, as the first of them has it: a matter of the writing, or of
 * the hearing. `pass` is an index of the list.
 */
export function sharedDifferences(
  passes: readonly PassComparison[],
): { readonly pass: number; readonly difference: Difference }[] {
  const found = new Map<string, { pass: number; difference: Difference; count: number }>();
  passes.forEach(({ differences }, pass) => {
    for (const difference of new Map(differences.map((d) => [sameIn(d), d])).values()) {
      const known = found.get(sameIn(difference));
      if (known) known.count++;
      else found.set(sameIn(difference), { pass, difference, count: 1 });
    }
  });
  return [...found.values()]
    .filter(({ count }) => 2 * count > passes.length)
    .map(({ pass, difference }) => ({ pass, difference }));
}

/** Differences are likely enough together to be asked about. */
export function isNotable(differences: readonly Difference[]): boolean {
  return differences.reduce((sum, d) => sum + d.probability, 0) >= NOTABLE;
}
