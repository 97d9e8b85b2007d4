/**
 * How each mark looks and which key it has: a row for every row of `MARKS` in core. The pad, the keys, the card and the drawn strum are
 * made of this table.
 */
import type { MarkCommand, Strum } from '@wild-needle/core/riff';
import type { StrumBlock } from './row-layout';
import {
  accentPath,
  archPath,
  barPath,
  bendPath,
  diamondPath,
  slideEndPath,
  slidePath,
  tremoloPath,
  vibratoPath,
} from './strum-shapes';

export interface MarkView {
  /** The press that sets it, see `shared/key-map.ts`, and what its cap shows. */
  readonly key: string;
  readonly cap: string;
  readonly does: string;
  /** On the switch, in the state that the strum is in; null without a strum. */
  readonly label: (strum: Strum | null) => string;
  /** The lines that it is drawn with; '' where it is not marked. Blocks, digits and tails are drawn by `strum-glyph.ts`. */
  readonly line?: (block: StrumBlock) => string;
  /** A sign beside the end of its line. */
  readonly sign?: (block: StrumBlock) => string;
}

const BEND_SIGNS: Readonly<Record<number, string>> = { 50: '¼', 100: '½', 200: '1', 300: '1½' };

const when = (is: boolean, path: () => string): string => (is ? path() : '');

/** In the order of the pad. */
export const MARK_VIEWS = {
  mute: { key: 'm', cap: 'M', does: 'Palm mute', label: () => 'Mute' },
  dead: { key: 'x', cap: 'X', does: 'Dead stroke', label: () => 'Dead' },
  ring: { key: 'r', cap: 'R', does: 'Let ring', label: () => 'Ring' },
  short: { key: 't', cap: 'T', does: 'Short', label: () => 'Short' },
  slide: {
    key: 's',
    cap: 'S',
    does: 'Slide from the strum before',
    label: () => 'Slide',
    line: (b) => when(b.marks.join === 'slide', () => b.joins.map(slidePath).join('')),
  },
  hammer: {
    key: 'h',
    cap: 'H',
    does: 'Hammer-on or pull-off',
    label: () => 'Hammer',
    line: (b) => when(b.marks.join === 'hammer', () => archPath(b.joins, b, false)),
  },
  harmonic: {
    key: 'o',
    cap: 'O',
    does: 'Harmonic, pinch harmonic',
    label: (s) => (s?.marks.harmonic === 'pinch' ? 'Pinch' : 'Harm.'),
    line: (b) =>
      when(b.marks.harmonic === 'pinch' && !b.dead && !b.rest && !b.blank, () =>
        diamondPath(b.x + b.width / 2, b.top - 9, 6),
      ),
  },
  bar: {
    key: 'b',
    cap: 'B',
    does: 'Bar dip, dive',
    label: (s) => (s?.marks.whammyBar === 'dive' ? 'Dive' : 'Bar dip'),
    line: (b) => when(b.marks.whammyBar !== null, () => barPath(b)),
  },
  bend: {
    key: 'u',
    cap: 'U',
    does: 'Bend, by four widths',
    label: (s) => {
      const sign = BEND_SIGNS[s?.marks.bendCents ?? 0];
      return sign ? `Bend ${sign}` : 'Bend';
    },
    line: (b) => when(b.marks.bendCents > 0, () => bendPath(b)),
    sign: (b) => BEND_SIGNS[b.marks.bendCents] ?? '',
  },
  vibrato: {
    key: 'z',
    cap: 'Z',
    does: 'Vibrato',
    label: () => 'Vibrato',
    line: (b) => when(b.marks.vibrato, () => vibratoPath(b)),
  },
  accent: {
    key: "'",
    cap: "'",
    does: 'Accent',
    label: () => 'Accent',
    line: (b) => when(b.marks.accent, () => accentPath(b)),
  },
  stroke: {
    key: 'd',
    cap: 'D',
    does: 'Down stroke, up stroke, as the grid says',
    label: (s) => (s?.marks.stroke === 'up' ? 'Up' : s?.marks.stroke === 'down' ? 'Down' : 'Stroke'),
  },
  'slide-end': {
    key: 'S',
    cap: '⇧S',
    does: 'Slide in, slide out',
    label: (s) =>
      s?.marks.slideIn
        ? s.marks.slideIn === 'below'
          ? 'In up'
          : 'In down'
        : s?.marks.slideOut
          ? `Out ${s.marks.slideOut}`
          : 'In, out',
    line: (b) => when(b.marks.slideIn !== null || b.marks.slideOut !== null, () => slideEndPath(b)),
  },
  tie: {
    key: '\\',
    cap: '\\',
    does: 'Tie',
    label: () => 'Tie',
    line: (b) => when(b.marks.join === 'tie', () => archPath(b.joins, b, true)),
  },
  rest: { key: '/', cap: '/', does: 'Rest', label: () => 'Rest' },
  tremolo: {
    key: 'T',
    cap: '⇧T',
    does: 'Tremolo picking',
    label: () => 'Tremolo',
    line: (b) => when(b.marks.tremolo, () => tremoloPath(b)),
  },
} as const satisfies Record<MarkCommand, MarkView>;

export const MARK_COMMANDS = Object.keys(MARK_VIEWS) as readonly MarkCommand[];

/** All rows, in the order of the pad. */
export const MARK_VIEW_ROWS: readonly MarkView[] = Object.values(MARK_VIEWS);
