/** One system of a text tab (a line for each string, and what stands over and under them) as bars of strums. */
import { NO_MARKS, PLAIN_STRUM, ticksPerBeat, type Marks, type RiffBar, type Strum } from '../../riff';
import type { Ticks } from '../../units';
import type { Remark } from '../brought';
import { countsOf, rowKind, tokensOf, type StringLine, type Token } from './lines';
import { anchorsOf, byCounts, byProportion, byWidth } from './place-columns';
import { readString, type Dialect, type ReadString, type StringNote } from './read-string';

export interface NumberedLine {
  /** Counted from 1. */
  readonly line: number;
  readonly text: string;
}

export interface System {
  /** Highest string first. */
  readonly strings: readonly (StringLine & { readonly line: number })[];
  readonly above: readonly NumberedLine[];
  readonly below: readonly NumberedLine[];
}

export interface SystemBar {
  readonly bar: RiffBar;
  /** From the start of the bar. */
  readonly strums: readonly Strum[];
  /** The bar before was broken at the end of its line, and goes on here. */
  readonly goesOn: boolean;
  readonly isRepeatStart: boolean;
  /** 0 where no repeat ends. */
  readonly repeatTimes: number;
}

/** Bar lines of two strings belong together this far apart. */
const NEAR = 1;

/** A strum before it has its time. */
interface Struck {
  readonly column: number;
  readonly notes: readonly { readonly string: number; readonly note: StringNote }[];
  readonly sign: 'rest' | 'blank' | null;
}

/** Columns at which most strings have a bar line. */
function barColumns(strings: readonly ReadString[], pick: (s: ReadString) => readonly number[]): number[] {
  const all = strings.flatMap(pick).sort((a, b) => a - b);
  const columns: number[] = [];
  for (const column of all) {
    const last = columns.at(-1);
    if (last !== undefined && column - last <= NEAR) continue;
    const has = strings.filter((s) => pick(s).some((c) => Math.abs(c - column) <= NEAR)).length;
    if (2 * has >= strings.length) columns.push(column);
  }
  return columns;
}

/** Notes of all strings that are struck together: in one column, or one column apart where a fret has two digits. */
function struckTogether(strings: readonly ReadString[]): Struck[] {
  const all = strings
    .flatMap((s, i) => s.notes.map((note) => ({ string: i + 1, note })))
    .sort((a, b) => a.note.column - b.note.column || a.string - b.string);
  const struck: { column: number; end: number; notes: { string: number; note: StringNote }[] }[] = [];
  for (const one of all) {
    const last = struck.at(-1);
    const apart = last ? one.note.column - last.column : Infinity;
    const isWide = last !== undefined && one.note.column < last.end;
    const isFree = !last?.notes.some((n) => n.string === one.string);
    if (last && isFree && (apart === 0 || (apart === 1 && isWide))) last.notes.push(one);
    else {
      const digits = one.note.fret !== null && one.note.fret > 9 ? 2 : 1;
      struck.push({ column: one.note.column, end: one.note.column + digits, notes: [one] });
    }
  }
  return struck.map(({ column, notes }) => ({ column, notes, sign: null }));
}

const SIGNS = /PH|A\.?H\.?|vv|v|lr|TP|\.|>|r/g;
const MARKS_OF_SIGNS: Readonly<Record<string, Partial<Marks>>> = {
  PH: { harmonic: 'pinch' },
  AH: { harmonic: 'pinch' },
  vv: { whammyBar: 'dive' },
  v: { whammyBar: 'dip' },
  lr: { length: 'ring' },
  TP: { tremolo: true },
  '.': { length: 'short' },
  '>': { accent: true },
};

/** Columns [from, to] over which the hand lies on the strings. */
function muteSpans(text: string): (readonly [number, number])[] {
  // From the line before.
  const [goesOn = ''] = /^\s*-+\|?/.exec(text) ?? [];
  const begun = goesOn === '' ? [] : ([[0, goesOn.length - 1]] as const);
  const own = [...text.matchAll(/P\.?\s?M\.?([-.\s]*[-.|])?/gi)].map(
    (m) => [m.index, m.index + m[0].length - 1] as const,
  );
  return [...begun, ...own];
}

/** What stands over and under the strings. */
function rowsOf({ above, below }: System): {
  readonly counts: readonly Token[];
  readonly signs: readonly Token[];
  readonly strokes: readonly Token[];
  readonly blanks: readonly number[];
  readonly mutes: readonly (readonly [number, number])[];
} {
  const rows = [
    ...above.map(({ text }) => ({ text, kind: rowKind(text, false) })),
    ...below.map(({ text }) => ({ text, kind: rowKind(text, true) })),
  ];
  const tokens = (kind: string): Token[] =>
    rows.filter((r) => r.kind === kind).flatMap((r) => tokensOf(r.text));
  return {
    counts: rows
      .filter((r) => r.kind === 'counts')
      .flatMap((r) => countsOf(r.text))
      .sort((a, b) => a.column - b.column),
    signs: tokens('signs').flatMap(({ column, text }) =>
      text === 'let'
        ? [{ column, text: 'lr' }]
        : [...text.matchAll(SIGNS)].map((m) => ({
            column,
            text: m[0].replaceAll('.', m[0] === '.' ? '.' : ''),
          })),
    ),
    strokes: tokens('strokes'),
    blanks: tokens('chords')
      .filter((t) => t.text === '?')
      .map((t) => t.column),
    mutes: rows.filter((r) => r.kind === 'mutes').flatMap((r) => muteSpans(r.text)),
  };
}

/** Nearest first; a sign stands over its strum or a column beside it. */
function at<T extends { readonly column: number }>(all: readonly T[], column: number, near: number): T[] {
  return all.filter((t) => Math.abs(t.column - column) <= near);
}

function strumOf(struck: Struck, strings: number, marked: Partial<Marks>, palmMute: boolean): Strum {
  const { notes, sign } = struck;
  const fretted = notes.filter(({ note }) => note.fret !== null);
  const dead = sign === null && fretted.length === 0;
  const joined = notes.map(({ note }) => note.marks);
  const marks = Object.assign({ ...NO_MARKS }, ...joined, marked) as Marks;
  const places = dead
    ? notes.length < strings
      ? notes.map(({ string }) => ({ string, fret: 0 }))
      : []
    : fretted.map(({ string, note }) => ({ string, fret: note.fret! }));
  return {
    ...PLAIN_STRUM,
    id: '',
    startTicks: 0,
    durationTicks: 1,
    frets: places.sort((a, b) => b.string - a.string),
    dead,
    rest: sign === 'rest',
    palmMute: palmMute && !dead && sign === null,
    marks: dead
      ? { ...NO_MARKS, accent: marks.accent, stroke: marks.stroke }
      : sign === 'rest'
        ? NO_MARKS
        : marks,
    trust: 'guessed',
  };
}

/** `usual`: the meter that the tab names; null lets the counts say. */
export function readSystem(
  system: System,
  usual: RiffBar | null,
  dialect: Dialect,
): { readonly bars: SystemBar[]; readonly remarks: Remark[] } {
  const { strings } = system;
  const read = strings.map((s) => readString(s.text, s.from, dialect));
  const remarks: Remark[] = read.flatMap((s, i) =>
    s.unread.map(({ column, words }) => ({ line: strings[i].line, column, words })),
  );
  const rows = rowsOf(system);
  const start = Math.max(...strings.map((s) => s.from));
  const end = Math.max(...strings.map((s) => s.text.trimEnd().length));
  strings.forEach((s) => {
    const length = s.text.trimEnd().length;
    if (end - length > 1 && read.every((r) => r.times === 0)) {
      remarks.push({ line: s.line, column: length + 1, words: 'this string ends before the others' });
    }
  });
  const lines = barColumns(read, (s) => s.barLines);
  if (lines.length === 0) {
    remarks.push({ line: strings[0].line, column: null, words: 'no bar lines: the line is read as one bar' });
  }
  const [repeatStarts, repeatEnds] = [
    barColumns(read, (s) => s.repeatStarts),
    barColumns(read, (s) => s.repeatEnds),
  ];
  const played = struckTogether(read);
  const alone = [
    ...rows.signs.filter((t) => t.text === 'r').map((t) => ({ column: t.column, sign: 'rest' as const })),
    ...rows.blanks.map((column) => ({ column, sign: 'blank' as const })),
  ].filter(({ column }) => at(played, column, 0).length === 0);
  const struck = [...played, ...alone.map((a): Struck => ({ ...a, notes: [] }))].sort(
    (a, b) => a.column - b.column,
  );
  // Behind the last bar line stands how often.
  const isTimed = read.some((r) => r.times > 0);
  const edges = [
    ...new Set([start - 1, ...lines, ...(isTimed || lines.at(-1) === end - 1 ? [] : [end])]),
  ].filter((c, i, all) => i === 0 || c > all[i - 1]);
  const near = dialect.isOwn ? 0 : 1;
  const bars = edges.slice(1).flatMap((to, i): SystemBar[] => {
    const from = edges[i] + 1 + (/^[|:*]+/.exec(strings[0].text.slice(edges[i] + 1))?.[0].length ?? 0);
    const own = struck.filter((s) => s.column >= from && s.column < to);
    const isLast = i === edges.length - 2;
    // A few dashes between two bar lines, and what is left behind the last one.
    if (own.length === 0 && to - from <= 3) return [];
    const anchors = anchorsOf(rows.counts, from - 1, to);
    const counted = anchors.length > 0 ? Math.floor(anchors[anchors.length - 1].beats) + 1 : 0;
    const first = anchors[0] ? Math.floor(anchors[0].beats) : 0;
    const bar: RiffBar = usual ?? (counted > 0 ? { beats: counted, unit: 4 } : { beats: 4, unit: 4 });
    const columns = own.map((s) => s.column);
    const even = anchors.length > 1 ? byCounts(columns, anchors, bar) : byWidth(columns, from, to, bar);
    if (!even && own.length > 0) {
      const words = 'the strums of this bar stand unevenly: they are on the nearest sixteenths';
      remarks.push({ line: strings[0].line, column: from + 1, words });
    }
    const times = even ?? byProportion(columns, from, to, bar);
    const ends = repeatEnds.some((c) => Math.abs(c - to) <= NEAR);
    const said = isLast ? Math.max(...read.map((r) => r.times)) : 0;
    return [
      {
        bar,
        goesOn: first > 0 && anchors.length > 1,
        isRepeatStart: repeatStarts.some((c) => Math.abs(c - edges[i]) <= NEAR),
        repeatTimes: ends ? Math.max(2, said) : said,
        strums: inBar(own, times, bar, (s) => {
          const marked = at(rows.signs, s.column, near).map((t) => MARKS_OF_SIGNS[t.text] ?? {});
          const stroke = at(rows.strokes, s.column, near)[0]?.text;
          const isDown = stroke !== undefined && /[dD↓∏⊓]/.test(stroke);
          const palmMute = rows.mutes.some(([a, b]) => s.column >= a - near && s.column <= b + near);
          const all = Object.assign(
            {},
            ...marked,
            stroke ? { stroke: isDown ? 'down' : 'up' } : {},
          ) as Partial<Marks>;
          return strumOf(s, strings.length, all, palmMute);
        }),
      },
    ];
  });
  return { bars, remarks };
}

/** Each until the next one, the last to the end of the bar; of two at one place the first stays. */
function inBar(
  struck: readonly Struck[],
  times: readonly Ticks[],
  bar: RiffBar,
  toStrum: (s: Struck) => Strum,
): Strum[] {
  const length = bar.beats * ticksPerBeat(bar.unit);
  return struck.flatMap((s, i) => {
    const startTicks = times[i];
    if (startTicks >= length || (i > 0 && startTicks <= times[i - 1])) return [];
    const next = times.slice(i + 1).find((t) => t > startTicks) ?? length;
    return [{ ...toStrum(s), startTicks, durationTicks: Math.max(1, Math.min(next, length) - startTicks) }];
  });
}
