/**
 * One bar of text tab: a line per string with the highest on top, counts, chord names, `PM---|` over palm-muted strums, `x` for dead
 * strokes and the signs of `riff/marks`. Columns stand for sixteenths, or for a finer place where a bar has one.
 */
import { pitchClassOf, nameNotes, spellPitchClass, type Key } from '../../theory';
import type { Tuning } from '../../guitar';
import {
  barStartsTicks,
  countSyllable,
  isBlank,
  MARK_ROWS,
  MARKS,
  strokeOf,
  strumNotes,
  ticksPerBeat,
  type FretPlace,
  type Riff,
  type Strum,
} from '../../riff';
import { TICKS_PER_QUARTER } from '../../units';

/** Characters per place, at least: chord names of three letters stand on neighbouring places without touching. */
const LEAST_COLUMN = 4;
/** Bars are put on one line up to this width, that of a page in a fixed-width font. */
export const LINE_WIDTH = 100;
/** Finest steps per quarter tried, coarsest first: eighths, triplets, sixteenths, sextuplets, 32nds. */
const DIVISIONS = [2, 3, 4, 6, 8, 12, 24];

/** Columns per quarter so that every strum of the bar falls on one. */
function divisionOf(strums: readonly Strum[], barStart: number): number {
  return (
    DIVISIONS.find((d) => strums.every((s) => ((s.startTicks - barStart) * d) % TICKS_PER_QUARTER === 0)) ??
    24
  );
}

/** Names of the open strings, highest first, padded to one width. */
export function stringNames({ stringsMidi }: Tuning, key: Key | null): string[] {
  const names = [...stringsMidi].reverse().map((midi) => spellPitchClass(pitchClassOf(midi), key));
  const width = Math.max(...names.map((n) => n.length));
  return names.map((n) => n.padEnd(width));
}

function nameOf(strum: Strum, tuning: Tuning, key: Key | null): string {
  return nameNotes(strumNotes(strum, tuning), key).symbol;
}

export interface BarText {
  readonly number: string;
  /** Names that would stand on the one before. */
  readonly upperNames: string;
  readonly names: string;
  readonly mutes: string;
  readonly marks: string;
  readonly strokes: string;
  readonly counts: string;
  /** Highest string first. */
  readonly strings: readonly string[];
  /** Characters at which a beat begins, where a bar that is too long may be broken. */
  readonly beatsAt: readonly number[];
}

function put(line: string[], at: number, text: string): void {
  for (let i = 0; i < text.length && at + i < line.length; i++) line[at + i] = text[i];
}

/** Marks that stand above the strings, with their letters. */
function marksAbove(strum: Strum): string {
  if (strum.rest) return MARKS.rest.above(strum);
  return MARK_ROWS.map((row) => row.above?.(strum) ?? '').join('');
}

/** What stands directly before and behind a fret; there is room for one sign before it. */
function aroundFret(strum: Strum, place: FretPlace): { before: string; behind: string } {
  return {
    before: MARK_ROWS.map((row) => row.before?.(strum, place) ?? '').find((sign) => sign !== '') ?? '',
    behind: MARK_ROWS.map((row) => row.behind?.(strum, place) ?? '').join(''),
  };
}

/** Characters per place so that what stands behind a fret, and over it, leaves room for a sign before the next one. */
function columnWidth(riff: Riff, strums: readonly Strum[]): number {
  const widths = strums.flatMap((strum) => [
    marksAbove(strum).length,
    ...strum.frets.map((f) => {
      const { behind } = aroundFret(strum, { fret: f.fret, from: fretBefore(riff, strum, f.string) });
      return String(f.fret).length + behind.length;
    }),
  ]);
  return Math.max(LEAST_COLUMN, 1 + Math.max(0, ...widths));
}

function fretBefore(riff: Riff, strum: Strum, string: number): number | null {
  const previous = riff.strums[riff.strums.indexOf(strum) - 1];
  return previous?.frets.find((f) => f.string === string)?.fret ?? null;
}

/** One bar; every line begins with the place before its first beat, where a slide into it stands. */
export function writeBar(
  riff: Riff,
  barIndex: number,
  tuning: Tuning,
  key: Key | null,
  lastName: { value: string },
): BarText {
  const start = barStartsTicks(riff)[barIndex];
  const { beats, unit } = riff.bars[barIndex];
  const end = start + beats * ticksPerBeat(unit);
  const strums = riff.strums.filter((s) => s.startTicks >= start && s.startTicks < end);
  const division = divisionOf(strums, start);
  const tickStep = TICKS_PER_QUARTER / division;
  const columns = Math.round((end - start) / tickStep);
  const column = columnWidth(riff, strums);
  const width = 1 + columns * column;
  const blank = (fill: string): string[] => new Array<string>(width).fill(fill);
  const [upperNames, names, mutes, marks, strokes, counts] = Array.from({ length: 6 }, () => blank(' '));
  const strings = tuning.stringsMidi.map(() => blank('-'));
  const columnOf = (ticks: number): number => 1 + Math.round((ticks - start) / tickStep) * column;
  // Directions are written where the player has set any.
  const hasStrokes = riff.strums.some((s) => s.marks.stroke !== null);

  for (let c = 0; c < columns; c++) put(counts, 1 + c * column, countSyllable(c * tickStep, unit));
  const nameEnds = [-1, -1];
  strums.forEach((strum, i) => {
    const at = columnOf(strum.startTicks);
    const name = isBlank(strum) ? '?' : nameOf(strum, tuning, key);
    const row = nameEnds.findIndex((end) => at > end);
    if (name !== '' && name !== lastName.value && row >= 0) {
      put(row === 0 ? names : upperNames, at, name);
      nameEnds[row] = at + name.length;
      lastName.value = name;
    }
    if (strum.palmMute) {
      const before = strums[i - 1]?.palmMute ?? false;
      const next = strums[i + 1];
      const until = next?.palmMute ? columnOf(next.startTicks) : at + 2;
      put(mutes, at, before ? '--' : 'PM');
      for (let c = at + 2; c < until; c++) put(mutes, c, '-');
      if (!next?.palmMute) put(mutes, until, '|');
    }
    put(marks, at, marksAbove(strum));
    const stroke = hasStrokes ? strokeOf(riff, strum) : null;
    if (stroke) put(strokes, at, stroke.charAt(0));
    if (strum.rest) return;
    if (strum.dead) {
      // Over the written strings; over all of them where none is written.
      const struck = strum.frets.length > 0 ? strum.frets.map((f) => f.string) : strings.map((_, s) => s + 1);
      for (const s of struck) put(strings[s - 1], at, 'x');
      return;
    }
    for (const { string, fret } of strum.frets) {
      if (string > strings.length) continue;
      const around = aroundFret(strum, { fret, from: fretBefore(riff, strum, string) });
      const text = around.before + String(fret) + around.behind;
      put(strings[string - 1], at - around.before.length, text);
    }
  });
  const line = (characters: readonly string[]): string => characters.join('');
  const beatColumns = Math.round(ticksPerBeat(unit) / tickStep) * column;
  return {
    number: (riff.bars.length > 1 ? String(barIndex + 1) : '').padEnd(width).slice(0, width),
    upperNames: line(upperNames),
    names: line(names),
    mutes: line(mutes),
    marks: line(marks),
    strokes: line(strokes),
    counts: line(counts),
    strings: strings.map(line),
    beatsAt: Array.from({ length: beats - 1 }, (_, beat) => (beat + 1) * beatColumns),
  };
}

/** A bar that is longer than a line, in pieces that begin with a beat. */
export function broken(bar: BarText): BarText[] {
  const length = bar.counts.length;
  if (length <= LINE_WIDTH) return [bar];
  const at = bar.beatsAt.findLast((beat) => beat <= LINE_WIDTH) ?? bar.beatsAt[0];
  if (at === undefined) return [bar];
  const part = (from: number, to: number): BarText => {
    const cut = (text: string): string => text.slice(from, to);
    // A name that began before goes no further.
    const cutName = (text: string): string =>
      /\S/.test(text.charAt(from - 1))
        ? cut(text).replace(/^\S+/, (rest) => ' '.repeat(rest.length))
        : cut(text);
    return {
      number: cut(bar.number),
      upperNames: cutName(bar.upperNames),
      names: cutName(bar.names),
      mutes: cut(bar.mutes),
      marks: cut(bar.marks),
      strokes: cut(bar.strokes),
      counts: cut(bar.counts),
      strings: bar.strings.map(cut),
      beatsAt: bar.beatsAt.filter((beat) => beat > from).map((beat) => beat - from),
    };
  };
  return [part(0, at), ...broken(part(at, length))];
}
