/** What was heard of a round, in words and as a proposal. */
import type { JudgedRound } from '@wild-needle/core/live';
import { TOO_QUIET_DB, type JudgedStrum, type RoundAnswer } from '@wild-needle/core/practice';
import { nameNotes, type Key } from '@wild-needle/core/theory';
import type { HeardRound } from '@wild-needle/contract';

/** Notes less likely than this are wrong: half and half is no reason to say so. */
export const WRONG_BELOW = 0.5;

/** A strum of the round and where it stands. */
export interface RoundStrum {
  /** 'Bar 2, 3 &' */
  readonly place: string;
  readonly name: string;
  readonly palmMuted: boolean;
  readonly dead: boolean;
}

export interface Slip {
  readonly index: number;
  readonly place: string;
  /** 'D#5 is written, it sounded like E5.' */
  readonly words: string;
}

export const isRight = ({ played, right }: Pick<JudgedStrum, 'played' | 'right'>): boolean =>
  played && right >= WRONG_BELOW;

/** What is wrong with one strum; null where nothing is. */
export function slipOf(
  strum: RoundStrum,
  { played, right, mute, heard }: JudgedStrum,
  key: Key | null,
): string | null {
  if (!played) return strum.dead ? 'the dead stroke was missed.' : `${strum.name} was missed.`;
  if (right < WRONG_BELOW) {
    const name = heard && heard.length > 0 ? nameNotes(heard, key).symbol : '';
    return name === '' || name === strum.name
      ? `${strum.name} is written, other strings sounded.`
      : `${strum.name} is written, it sounded like ${name}.`;
  }
  if (mute === 'wrong')
    return strum.palmMuted ? 'the palm mute was missing.' : 'it was muted and should ring.';
  return null;
}

export function slipsOf(
  strums: readonly RoundStrum[],
  judged: readonly JudgedStrum[],
  key: Key | null,
): Slip[] {
  return strums.flatMap((strum, index) => {
    const words = judged[index] ? slipOf(strum, judged[index], key) : null;
    return words === null ? [] : [{ index, place: strum.place, words }];
  });
}

/** What the round would be called; null where it is too quiet to tell. */
export function proposalOf(
  { strums, extraS, levelDb }: JudgedRound,
  slips: readonly Slip[],
): RoundAnswer | null {
  if (strums.length === 0 || levelDb < TOO_QUIET_DB) return null;
  return slips.length === 0 && extraS.length === 0 ? 'clean' : 'slip';
}

/** 'mean 14 ms late' */
export function offsetWords(meanMs: number): string {
  const ms = Math.round(Math.abs(meanMs));
  return ms === 0 ? 'on the beat' : `${ms} ms ${meanMs > 0 ? 'late' : 'early'}`;
}

export function heardRoundOf({ strums, summary }: JudgedRound): HeardRound {
  const tenths = (seconds: number): number => Math.round(1e4 * seconds) / 10;
  return {
    written: strums.length,
    played: summary.played,
    right: summary.right,
    meanMs: tenths(summary.meanOffsetS),
    spreadMs: tenths(summary.spreadS),
  };
}
