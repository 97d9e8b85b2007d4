/** One string of a text tab, character by character: what is fretted, and the signs around it. */
import { MAX_FRET } from '../../guitar';
import type { Marks } from '../../riff';

export interface StringNote {
  /** Of the first digit of the fret. */
  readonly column: number;
  /** Behind the last one. */
  readonly end: number;
  /** Null for a dead stroke. */
  readonly fret: number | null;
  readonly marks: Partial<Marks>;
}

export interface ReadString {
  readonly notes: readonly StringNote[];
  readonly barLines: readonly number[];
  /** Bar lines with dots: what is between them is played again. */
  readonly repeatStarts: readonly number[];
  readonly repeatEnds: readonly number[];
  /** Written behind the last bar line, as in `x4`; 0 where nothing is. */
  readonly times: number;
  readonly unread: readonly { readonly column: number; readonly words: string }[];
}

export interface Dialect {
  /** Signs before a fret are joined to the strum before, and `s` slides in from nowhere: as the writer of this folder explains. */
  readonly isOwn: boolean;
}

/** A bend that is only marked (common practice). */
const WHOLE_TONE = 200;
const MOST_BEND = 400;
const FRACTIONS: Readonly<Record<string, number>> = { '¼': 50, '½': 100, '¾': 150 };

function bendOf(
  text: string,
  fret: number,
  { isOwn }: Dialect,
): { readonly cents: number; readonly length: number } {
  const [whole, amount = ''] = /^[b^]([¼½¾]|\d{1,2})?(r\d{0,2})?/i.exec(text) ?? [text.charAt(0)];
  if (amount in FRACTIONS) return { cents: FRACTIONS[amount], length: whole.length };
  const to = Number(amount);
  if (amount === '') return { cents: WHOLE_TONE, length: whole.length };
  // '7b9' bends to what the ninth fret sounds; three semitones are told as such in our own tabs.
  if (isOwn) return { cents: Math.min(MOST_BEND, 100 * to), length: whole.length };
  return { cents: to > fret ? Math.min(MOST_BEND, 100 * (to - fret)) : WHOLE_TONE, length: whole.length };
}

export function readString(text: string, from: number, dialect: Dialect): ReadString {
  const notes: StringNote[] = [];
  const barLines: number[] = [];
  const repeatStarts: number[] = [];
  const repeatEnds: number[] = [];
  const unread: { column: number; words: string }[] = [];
  let times = 0;
  /** Signs that belong to the next fret. */
  let next: Partial<Marks> = {};
  let at = from;
  const isBehindNote = (): boolean => notes.at(-1)?.end === at;
  const markLast = (marks: Partial<Marks>): void => {
    const last = notes.pop();
    if (last) notes.push({ ...last, end: at + 1, marks: { ...last.marks, ...marks } });
  };
  const take = (
    length: number,
    fret: number | null,
    marks: Partial<Marks> = {},
    inside = { at: 0, length },
  ): void => {
    notes.push({ column: at + inside.at, end: at + length, fret, marks: { ...next, ...marks } });
    next = {};
    at += length;
  };
  while (at < text.length) {
    const rest = text.slice(at);
    const character = rest[0];
    const [digits = ''] = /^(2[0-4]|1\d|\d)/.exec(rest) ?? [];
    const [repeated = '', count = ''] = /^(?:x(\d{1,3})|\s*\(?x\s?(\d{1,3})\)?)\s*$/.exec(rest) ?? [];
    const held = /^\((\d{1,2})\)/.exec(rest);
    const rung = /^<(\d{1,2})>/.exec(rest);
    if (
      repeated !== '' &&
      barLines.at(-1) !== undefined &&
      text.slice(barLines.at(-1)! + 1, at).trim() === ''
    ) {
      times = Number(count || /\d+/.exec(repeated)?.[0]) || 0;
      break;
    }
    if (held && Number(held[1]) <= MAX_FRET) {
      take(held[0].length, Number(held[1]), { join: 'tie' }, { at: 1, length: held[1].length });
    } else if (rung && Number(rung[1]) <= MAX_FRET) {
      take(rung[0].length, Number(rung[1]), { harmonic: 'natural' }, { at: 1, length: rung[1].length });
    } else if (digits !== '') {
      take(digits.length, Number(digits));
    } else if (/[xX]/.test(character)) {
      take(1, null);
    } else if (character === '|') {
      const isEnd = /[:*o]$/i.test(text.slice(Math.max(from, at - 1), at));
      const [bars] = /^\|+/.exec(rest)!;
      if (isEnd) repeatEnds.push(at);
      if (/^[:*]/.test(text.slice(at + bars.length))) repeatStarts.push(at);
      barLines.push(at);
      at += bars.length;
    } else if (/[hHpPtT]/.test(character)) {
      next = { ...next, join: 'hammer' };
      at++;
    } else if (/[/\\sS]/.test(character)) {
      const isBeforeFret = (dialect.isOwn ? /^.\d/ : /^.[<(]?\d/).test(rest);
      const isUp = character === '/' || character === 's';
      const isSlash = character === '/' || character === '\\';
      if (!isBeforeFret && isBehindNote()) {
        markLast({ slideOut: isUp ? 'up' : 'down' });
      } else if (dialect.isOwn ? isSlash : isBehindNote()) {
        next = { ...next, join: 'slide' };
      } else next = { ...next, slideIn: isUp ? 'below' : 'above' };
      at++;
    } else if (/[bB^]/.test(character) && isBehindNote() && notes.at(-1)!.fret !== null) {
      const { cents, length } = bendOf(rest, notes.at(-1)!.fret!, dialect);
      at += length - 1;
      markLast({ bendCents: cents });
      at++;
    } else if (/[~vV]/.test(character) && isBehindNote()) {
      markLast({ vibrato: true });
      at++;
    } else {
      if (!/[-=\s:.*+oO'~rR)>]/.test(character)) {
        const words = /\d/.test(character)
          ? `the neck ends at fret ${MAX_FRET}`
          : `“${character}” is no sign of a tab: left out`;
        unread.push({ column: at + 1, words });
      }
      if (character === '-') next = {};
      at++;
    }
  }
  return { notes, barLines, repeatStarts, repeatEnds, times, unread };
}
