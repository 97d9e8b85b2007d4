/**
 * How far each written strum is doubted: what the recording says of it (`evidence.ts`) as calibrated probabilities, each way to be
 * wrong for itself and all together.
 */
import { logistic, logOdds } from '../mir';
import type { Evidence, StrumEvidence } from './evidence';

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

export interface Judgement {
  readonly verdict: Verdict;
  /** That anything of it is written wrong, 0 to 1. */
  readonly doubt: number;
  readonly kinds: Doubts;
  readonly heard: StrumEvidence['heard'];
  readonly offsetS: number | null;
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

/** From here on it is said to be wrong; under it, and over the second, it can't be told. */
const CLASHES_FROM = 0.5;
const DOUBTFUL_FROM = 0.25;

function doubtOf(line: Line, agreeing: number): number {
  return logistic(line.base - line.slope * logOdds(agreeing, LEAST));
}

export function judgeStrum({ notes, struck, kind, heard, offsetS, elsewhere }: StrumEvidence): Judgement {
  const absent = doubtOf(LINES.struck, struck);
  // What is not struck says nothing of how.
  const there = 1 - absent;
  const ofKind = doubtOf(LINES.mute, kind);
  const ofNotes = notes === null ? 0 : doubtOf(LINES.notes, notes);
  const moved = absent * (elsewhere?.probability ?? 0);
  const kinds = { notes: there * ofNotes, mute: there * ofKind, time: moved, there: absent - moved };
  const doubt = 1 - there * (1 - ofKind) * (1 - ofNotes);
  const verdict =
    doubt < DOUBTFUL_FROM
      ? 'agrees'
      : doubt < CLASHES_FROM
        ? 'doubtful'
        : absent > Math.max(kinds.mute, kinds.notes)
          ? 'missing'
          : 'clashes';
  return { verdict, doubt, kinds, heard, offsetS };
}

export function judge({ strums }: Evidence): Judgement[] {
  return strums.map(judgeStrum);
}
