/**
 * How far each written strum is doubted: what the recording says of it (`evidence.ts`) as calibrated probabilities, each way to be
 * wrong for itself and all together, and why.
 */
import { quantileSorted } from 'd3-array';
import { logistic, logOdds } from '../mir';
import type { MidiNote } from '../units';
import type { Cover } from './covered';
import type { Evidence, StrumEvidence, WrittenStrum } from './evidence';

export type Verdict = 'agrees' | 'doubtful' | 'clashes' | 'missing';

/** The probability of each way to be wrong; they need not add up. */
export interface Doubts {
  readonly notes: number;
  /** Palm mute or dead stroke. */
  readonly mute: number;
  readonly time: number;
  /** There is no such strum. */
  readonly there: number;
}

/** Why a strum is doubted: the likeliest way to be wrong, as data. */
export type Reason =
  | { readonly kind: 'notes'; readonly extra: readonly MidiNote[]; readonly missing: readonly MidiNote[] }
  | { readonly kind: 'mute'; readonly heard: 'ringing' | 'muted' | 'dead' }
  | { readonly kind: 'time'; readonly offsetS: number }
  /** It can't be told: another instrument sounds these notes. */
  | ({ readonly kind: 'covered' } & Cover)
  | { readonly kind: 'not-heard' };

export interface Judgement {
  readonly verdict: Verdict;
  /** That anything of it is written wrong, 0 to 1. */
  readonly doubt: number;
  readonly kinds: Doubts;
  readonly reason: Reason;
  readonly heard: StrumEvidence['heard'];
  readonly offsetS: number | null;
}

/** When a band plays against its own beats: the middle 80 % of its strums, seconds, early is negative. */
export interface Habit {
  readonly fromS: number;
  readonly toS: number;
}

/** Evidence that is as good as certain counts up to these log-odds. */
const LEAST = 1e-4;

/** Log-odds of a doubt: `base` and `slope` times the log-odds that the recording speaks against it. */
interface Line {
  readonly base: number;
  readonly slope: number;
}

/**
 * One strum in ten is wrong before anybody listens, which is log-odds of -2.2; and networks are a little surer than they are right.
 * Set before any song was judged, and kept: the calibration error on the rendered songs is in docs/accuracy.md. A fit on the generated
 * songs was tried (docs/experiments.md): their hearing is wrong so often that it makes the judge too timid everywhere else.
 */
const LINES: Readonly<Record<'notes' | 'mute' | 'struck', Line>> = {
  notes: { base: -2.5, slope: 0.8 },
  mute: { base: -2.5, slope: 0.8 },
  struck: { base: -2.5, slope: 0.8 },
};

/**
 * Log-odds that a strum which is heard near its place is written at the wrong one: hardly ever within the band's habit, and more by so
 * much with each width of the habit that it lies outside of it.
 */
const OUT_OF_TIME = { base: -6.5, perWidth: 2, leastWidthS: 0.015 };

/** Each time the ear has kept what is written against the very same reading, the odds of that question fall to a third. */
const OVERRULED = Math.log(3);
const MOST_OVERRULED = 3;

/** From here on it is said to be wrong; under it, and over the second, it can't be told. */
const CLASHES_FROM = 0.5;
export const DOUBTFUL_FROM = 0.25;

/** Most that a strum is doubted whose notes another instrument covers. */
const COVERED = 0.45;

/** Fewer strums make no habit. */
const LEAST_STRUMS = 8;

function doubtOf(line: Line, agreeing: number): number {
  return logistic(line.base - line.slope * logOdds(agreeing, LEAST));
}

/** The habit of strums that are heard where they are written; null for too few of them. */
export function habitOf(strums: readonly StrumEvidence[]): Habit | null {
  const offsets = strums
    .flatMap(({ offsetS, elsewhere }) => (offsetS === null || elsewhere ? [] : [offsetS]))
    .sort((a, b) => a - b);
  if (offsets.length < LEAST_STRUMS) return null;
  return { fromS: quantileSorted(offsets, 0.1)!, toS: quantileSorted(offsets, 0.9)! };
}

function outOfTime(offsetS: number | null, habit: Habit | null): number {
  if (offsetS === null || !habit) return 0;
  const width = Math.max(OUT_OF_TIME.leastWidthS, (habit.toS - habit.fromS) / 2);
  const outside = Math.max(0, habit.fromS - offsetS, offsetS - habit.toS);
  return logistic(OUT_OF_TIME.base + (OUT_OF_TIME.perWidth * outside) / width);
}

function reasonOf(
  kinds: Doubts,
  { midi }: Pick<WrittenStrum, 'midi'>,
  { heard, offsetS, cover }: StrumEvidence,
): Reason {
  const most = Math.max(kinds.notes, kinds.mute, kinds.time, kinds.there);
  if (most === kinds.there || !heard) return { kind: 'not-heard' };
  if (most === kinds.time) return { kind: 'time', offsetS: offsetS ?? 0 };
  if (most === kinds.mute) {
    return { kind: 'mute', heard: heard.dead ? 'dead' : heard.palmMuted ? 'muted' : 'ringing' };
  }
  if (cover) return { kind: 'covered', ...cover };
  return {
    kind: 'notes',
    extra: heard.midi.filter((note) => !midi.includes(note)),
    missing: midi.filter((note) => !heard.midi.includes(note)),
  };
}

/** `overruled`: how often the ear has kept what is written against what is heard here. */
export function judgeStrum(
  written: Pick<WrittenStrum, 'midi'>,
  evidence: StrumEvidence,
  { habit = null, overruled = 0 }: { readonly habit?: Habit | null; readonly overruled?: number } = {},
): Judgement {
  const { notes, struck, kind, heard, offsetS, elsewhere } = evidence;
  const taught = (doubt: number): number =>
    overruled === 0
      ? doubt
      : logistic(logOdds(doubt, LEAST) - OVERRULED * Math.min(MOST_OVERRULED, overruled));
  const absent = taught(doubtOf(LINES.struck, struck));
  // What is not struck says nothing of how.
  const there = 1 - absent;
  const ofKind = taught(doubtOf(LINES.mute, kind));
  const ofNotes = notes === null ? 0 : taught(doubtOf(LINES.notes, notes));
  const late = elsewhere ? 0 : taught(outOfTime(offsetS, habit));
  const moved = absent * (elsewhere?.probability ?? 0);
  const kinds = {
    notes: there * ofNotes,
    mute: there * ofKind,
    time: Math.max(moved, there * late),
    there: absent - moved,
  };
  const reason = reasonOf(kinds, written, evidence);
  const believed = 1 - there * (1 - ofKind) * (1 - ofNotes) * (1 - late);
  // What can't be told is not said to be wrong.
  const doubt = reason.kind === 'covered' ? Math.min(COVERED, believed) : believed;
  const verdict =
    doubt < DOUBTFUL_FROM
      ? 'agrees'
      : doubt < CLASHES_FROM
        ? 'doubtful'
        : absent > Math.max(kinds.mute, kinds.notes)
          ? 'missing'
          : 'clashes';
  return { verdict, doubt, kinds, reason, heard, offsetS };
}

/** A question: what is written, against what is heard. */
function questionOf({ midi, palmMuted, dead }: WrittenStrum, { heard }: StrumEvidence): string {
  const instead = heard ? [heard.dead, heard.palmMuted, ...heard.midi].join() : '';
  return [[dead, palmMuted, ...midi].join(), instead].join(' / ');
}

/** `kept[i]`: the ear has said that written strum i stands, whatever is heard. */
export function judge(
  { strums }: Evidence,
  written: readonly WrittenStrum[],
  kept: readonly boolean[] = [],
): Judgement[] {
  const habit = habitOf(strums);
  const overruled = new Map<string, number>();
  strums.forEach((evidence, i) => {
    if (!kept[i] || judgeStrum(written[i], evidence, { habit }).doubt < DOUBTFUL_FROM) return;
    const question = questionOf(written[i], evidence);
    overruled.set(question, (overruled.get(question) ?? 0) + 1);
  });
  return strums.map((evidence, i) =>
    judgeStrum(written[i], evidence, {
      habit,
      overruled: overruled.get(questionOf(written[i], evidence)) ?? 0,
    }),
  );
}
