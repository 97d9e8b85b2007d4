/**
 * The marks of a strum, one row each: what a press of its key makes of the strum, how it is said, and how it stands in a text
 * tab. `satisfies` keeps every row whole; whatever lists marks is made of this table.
 */
import { hasHarmonic } from '../../guitar';
import type { Strum } from '../document';
import { NO_MARKS, type Marks } from './fields';

/** A strum on one string, for signs that stand beside its fret. */
export interface FretPlace {
  readonly fret: number;
  /** Fret of the strum before on this string; null for none. */
  readonly from: number | null;
}

export interface MarkRow {
  /** What one press changes: the mark is set, goes on to the next of its kind, or is taken back. */
  readonly press: (strum: Strum) => Partial<Strum>;
  /** Where the strum is in the round of presses. */
  readonly state: (strum: Strum) => string | number | boolean | null;
  /** Dead strokes and rests take it too. */
  readonly needsNoPitch?: true;
  /** For the ear and the panel; '' where it is not marked. */
  readonly words: (strum: Strum) => string;
  /** Signs of a text tab, '' where it is not marked: above the strings, before and behind a fret. Common practice. */
  readonly above?: (strum: Strum) => string;
  readonly before?: (strum: Strum, place: FretPlace) => string;
  readonly behind?: (strum: Strum, place: FretPlace) => string;
  /** What its signs mean; each is told in a tab that has it. */
  readonly legend: readonly (readonly [has: (strum: Strum) => boolean, words: string])[];
}

/** The strum rings: none of the kinds that exclude each other. */
const RINGING = { palmMute: false, dead: false, rest: false } as const;

/** Bends that are played: a quarter tone for the blues, a semitone, a whole tone, three semitones (common practice). */
const BENDS = [
  { cents: 0, sign: '', words: '' },
  { cents: 50, sign: 'b¼', words: 'a quarter tone' },
  { cents: 100, sign: 'b½', words: 'a semitone' },
  { cents: 200, sign: 'b', words: 'a whole tone' },
  { cents: 300, sign: 'b3', words: 'three semitones' },
] as const;

/** A slide that comes from or goes nowhere in particular. */
const SLIDE_ENDS = [
  { slideIn: null, slideOut: null },
  { slideIn: 'below', slideOut: null },
  { slideIn: 'above', slideOut: null },
  { slideIn: null, slideOut: 'down' },
  { slideIn: null, slideOut: 'up' },
] as const satisfies readonly Partial<Marks>[];

function following<T>(values: readonly T[], current: T): T {
  return values[(values.indexOf(current) + 1) % values.length];
}

function mark(strum: Strum, changes: Partial<Marks>): Partial<Strum> {
  return { marks: { ...strum.marks, ...changes } };
}

/** A mark that is one of the ways a strum is joined to the one before. */
function joined(how: NonNullable<Marks['join']>): Pick<MarkRow, 'press' | 'state'> {
  return {
    press: (s) => mark(s, { join: s.marks.join === how ? null : how }),
    state: (s) => s.marks.join === how,
  };
}

function lasting(how: NonNullable<Marks['length']>): Pick<MarkRow, 'press' | 'state'> {
  return {
    press: (s) => mark(s, { length: s.marks.length === how ? null : how }),
    state: (s) => s.marks.length === how,
  };
}

/** A mark that is there or not. */
function flag(name: 'vibrato' | 'accent' | 'tremolo'): Pick<MarkRow, 'press' | 'state'> {
  return {
    press: (s) => mark(s, { [name]: !s.marks[name] }),
    state: (s) => s.marks[name],
  };
}

/** A mark that goes round in the values of its field. */
function round<K extends 'whammyBar' | 'stroke'>(
  name: K,
  values: readonly Marks[K][],
): Pick<MarkRow, 'press' | 'state'> {
  return {
    press: (s) => mark(s, { [name]: following(values, s.marks[name]) }),
    state: (s) => s.marks[name],
  };
}

const isRising = ({ fret, from }: FretPlace): boolean => from === null || fret >= from;

/** In the order that they are said and explained in. */
export const MARKS = {
  mute: {
    press: (s) => ({ ...RINGING, palmMute: !s.palmMute }),
    state: (s) => s.palmMute,
    needsNoPitch: true,
    words: (s) => (s.palmMute ? 'palm mute' : ''),
    legend: [[(s) => s.palmMute, 'PM = palm mute']],
  },
  dead: {
    // A dead stroke has no pitch to bend; its direction stays.
    press: (s) => ({ ...RINGING, dead: !s.dead, marks: { ...NO_MARKS, stroke: s.marks.stroke } }),
    state: (s) => s.dead,
    needsNoPitch: true,
    words: (s) => (s.dead ? 'dead stroke' : ''),
    legend: [[(s) => s.dead, 'x = dead stroke']],
  },
  rest: {
    press: (s) => ({ ...RINGING, rest: !s.rest, marks: s.rest ? s.marks : NO_MARKS }),
    state: (s) => s.rest,
    needsNoPitch: true,
    words: (s) => (s.rest ? 'rest' : ''),
    above: (s) => (s.rest ? 'r' : ''),
    legend: [[(s) => s.rest, 'r = rest']],
  },
  slide: {
    ...joined('slide'),
    words: (s) => (s.marks.join === 'slide' ? 'slid into' : ''),
    before: (s, at) => (s.marks.join !== 'slide' ? '' : isRising(at) ? '/' : '\\'),
    legend: [
      [({ marks: m }) => m.join === 'slide', '/ \\ before a fret = slid into from the one before, up, down'],
    ],
  },
  hammer: {
    ...joined('hammer'),
    words: (s) => (s.marks.join === 'hammer' ? 'hammered or pulled off' : ''),
    before: (s, at) => (s.marks.join !== 'hammer' ? '' : isRising(at) ? 'h' : 'p'),
    legend: [[(s) => s.marks.join === 'hammer', 'h p = hammer-on, pull-off']],
  },
  tie: {
    ...joined('tie'),
    words: (s) => (s.marks.join === 'tie' ? 'tied' : ''),
    before: (s) => (s.marks.join === 'tie' ? '(' : ''),
    behind: (s) => (s.marks.join === 'tie' ? ')' : ''),
    legend: [[(s) => s.marks.join === 'tie', '(5) = rings on, not struck again']],
  },
  harmonic: {
    press: (s) => {
      // A natural one needs a node under the finger; elsewhere only the pinch is possible.
      const isNode = s.frets.length > 0 && s.frets.every((f) => hasHarmonic(f.fret));
      return mark(s, {
        harmonic: following(isNode ? [null, 'natural', 'pinch'] : [null, 'pinch'], s.marks.harmonic),
      });
    },
    state: (s) => s.marks.harmonic,
    words: (s) => (s.marks.harmonic === null ? '' : `${s.marks.harmonic} harmonic`),
    above: (s) => (s.marks.harmonic === 'pinch' ? 'PH' : ''),
    before: (s) => (s.marks.harmonic === 'natural' ? '<' : ''),
    behind: (s) => (s.marks.harmonic === 'natural' ? '>' : ''),
    legend: [
      [(s) => s.marks.harmonic === 'natural', '<12> = natural harmonic'],
      [(s) => s.marks.harmonic === 'pinch', 'PH = pinch harmonic'],
    ],
  },
  bend: {
    press: (s) => {
      const at = BENDS.findIndex((b) => b.cents === s.marks.bendCents);
      return mark(s, { bendCents: BENDS[(at + 1) % BENDS.length].cents });
    },
    state: (s) => s.marks.bendCents,
    words: ({ marks: { bendCents } }) => (bendCents > 0 ? `bent by ${bendWords(bendCents)}` : ''),
    behind: (s) => BENDS.find((b) => b.cents === s.marks.bendCents)?.sign ?? 'b',
    legend: BENDS.slice(1).map(({ cents, sign, words }) => [
      (s) => s.marks.bendCents === cents,
      `${sign} = bend by ${words}`,
    ]),
  },
  vibrato: {
    ...flag('vibrato'),
    words: (s) => (s.marks.vibrato ? 'vibrato' : ''),
    behind: (s) => (s.marks.vibrato ? '~' : ''),
    legend: [[(s) => s.marks.vibrato, '~ = vibrato']],
  },
  'slide-end': {
    press: (s) => {
      const { slideIn, slideOut } = s.marks;
      const at = SLIDE_ENDS.findIndex((e) => e.slideIn === slideIn && e.slideOut === slideOut);
      return mark(s, SLIDE_ENDS[(at + 1) % SLIDE_ENDS.length]);
    },
    state: ({ marks }) => `${marks.slideIn}/${marks.slideOut}`,
    words: ({ marks: { slideIn, slideOut } }) =>
      [
        slideIn === null ? '' : `slid into from ${slideIn}`,
        slideOut === null ? '' : `slid ${slideOut} and away`,
      ]
        .filter((w) => w !== '')
        .join(', '),
    before: (s) => (s.marks.slideIn === null ? '' : s.marks.slideIn === 'below' ? 's' : 'S'),
    behind: (s) => (s.marks.slideOut === null ? '' : s.marks.slideOut === 'up' ? '/' : '\\'),
    legend: [
      [(s) => s.marks.slideIn !== null, 's S before a fret = slid in from nowhere, from below, from above'],
      [(s) => s.marks.slideOut !== null, '/ \\ behind a fret = slid away, up, down'],
    ],
  },
  bar: {
    ...round('whammyBar', [null, 'dip', 'dive']),
    words: (s) => (s.marks.whammyBar === null ? '' : `bar ${s.marks.whammyBar}`),
    above: (s) => (s.marks.whammyBar === null ? '' : s.marks.whammyBar === 'dip' ? 'v' : 'vv'),
    legend: [[(s) => s.marks.whammyBar !== null, 'v vv = bar dip, dive']],
  },
  ring: {
    ...lasting('ring'),
    words: (s) => (s.marks.length === 'ring' ? 'ringing on' : ''),
    above: (s) => (s.marks.length === 'ring' ? 'lr' : ''),
    legend: [[(s) => s.marks.length === 'ring', 'lr = let ring']],
  },
  short: {
    ...lasting('short'),
    words: (s) => (s.marks.length === 'short' ? 'short' : ''),
    above: (s) => (s.marks.length === 'short' ? '.' : ''),
    legend: [[(s) => s.marks.length === 'short', '. = short']],
  },
  tremolo: {
    ...flag('tremolo'),
    words: (s) => (s.marks.tremolo ? 'tremolo picking' : ''),
    above: (s) => (s.marks.tremolo ? 'TP' : ''),
    legend: [[(s) => s.marks.tremolo, 'TP = tremolo picking, as fast as the hand goes']],
  },
  accent: {
    ...flag('accent'),
    needsNoPitch: true,
    words: (s) => (s.marks.accent ? 'accent' : ''),
    above: (s) => (s.marks.accent ? '>' : ''),
    legend: [[(s) => s.marks.accent, '> = accent']],
  },
  stroke: {
    ...round('stroke', [null, 'down', 'up']),
    needsNoPitch: true,
    words: (s) => (s.marks.stroke === null ? '' : `${s.marks.stroke} stroke`),
    legend: [[(s) => s.marks.stroke !== null, 'd u = down, up stroke']],
  },
} as const satisfies Record<string, MarkRow>;

export type MarkCommand = keyof typeof MARKS;

/** All rows, in order. */
export const MARK_ROWS: readonly MarkRow[] = Object.values(MARKS);

function bendWords(cents: number): string {
  return BENDS.find((b) => b.cents === cents)?.words ?? `${cents} cents`;
}

function rowOf(command: MarkCommand): MarkRow {
  return MARKS[command];
}

/**
 * The strum with one mark pressed; it counts as checked. Palm mute, dead stroke and rest exclude each other, and the frets are kept
 * for turning them back; marks that need a pitch leave a dead stroke and a rest as they are.
 */
export function applyMark(strum: Strum, command: MarkCommand): Strum {
  const row = rowOf(command);
  if ((strum.dead || strum.rest) && !row.needsNoPitch) return strum;
  return { ...strum, ...row.press(strum), trust: 'checked' };
}

/** Where a strum is in the round of a mark: two strums of one state are marked alike. */
export function markState(strum: Strum, command: MarkCommand): string {
  return String(rowOf(command).state(strum));
}

/** What is marked on a strum, in words, most telling first; a rest is nothing but a rest. */
export function markWords(strum: Strum): string[] {
  if (strum.rest) return [MARKS.rest.words(strum)];
  return MARK_ROWS.map((row) => row.words(strum)).filter((words) => words !== '');
}
