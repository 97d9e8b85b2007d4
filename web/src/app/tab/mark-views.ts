/**
 * How each mark looks and which key it has: a row for every row of `MARKS` in core. The pad, the keys, the card and the drawn strum are
 * made of this table.
 */
import type { MarkCommand, Strum } from '@wild-needle/core/riff';
import type { Join, StrumBlock } from './row-layout';
import { diamondPath, r } from './strum-shapes';

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

/** One slanted line per string, up to the right when the fret rises. */
function slidePath({ fromX, toX, y, rises }: Join): string {
  const lift = rises === 0 ? 0 : 8 * rises;
  return `M${r(fromX + 2)} ${r(y + lift)}L${r(toX - 2)} ${r(y - lift)}`;
}

/** An arch over what is hammered or pulled off, from one block to the next; under it for a tie. */
function archPath(joins: readonly Join[], { top, height, width }: StrumBlock, isTie: boolean): string {
  if (joins.length === 0) return '';
  const { fromX, toX } = joins[0];
  const from = fromX - width / 2;
  const to = toX + width / 2;
  const y = isTie ? top + height + 2 : top - 1;
  const bow = isTie ? 12 : -13;
  return `M${r(from)} ${r(y)}Q${r((from + to) / 2)} ${r(y + bow)} ${r(to)} ${r(y)}`;
}

/** A slide from nowhere into each string, or away from it. */
function slideEndPath(block: StrumBlock): string {
  const { marks, digits, x, tailX, width } = block;
  return digits
    .map(({ y }) => {
      const parts: string[] = [];
      if (marks.slideIn !== null) {
        const lift = marks.slideIn === 'below' ? 6 : -6;
        parts.push(`M${r(x - 12)} ${r(y + lift)}L${r(x - 2)} ${r(y - lift / 2)}`);
      }
      if (marks.slideOut !== null) {
        const lift = marks.slideOut === 'up' ? -6 : 6;
        const end = Math.max(tailX, x + width + 14);
        parts.push(`M${r(end - 12)} ${r(y)}L${r(end)} ${r(y + lift)}`);
      }
      return parts.join('');
    })
    .join('');
}

/** An arrow that rises from the top string. */
function bendPath({ x, width, top }: StrumBlock): string {
  const from = x + width + 2;
  return `M${r(from)} ${r(top + 15)}Q${r(from + 10)} ${r(top + 14)} ${r(from + 10)} ${r(top - 2)}m-4 5l4 -5l4 5`;
}

/** A wave over the tail. */
function vibratoPath({ x, width, top, tailX }: StrumBlock): string {
  const from = x + width + 4;
  const waves = Math.max(2, Math.floor((Math.min(tailX, from + 70) - from) / 8));
  return `M${r(from)} ${r(top + 4)}${'q2 -5 4 0t4 0'.repeat(waves)}`;
}

/** A shallow V under the tail for a dip, a falling line for a dive. */
function barPath({ x, width, top, height, tailX, marks }: StrumBlock): string {
  const from = x + width + 3;
  const y = top + height - 2;
  if (marks.whammyBar === 'dip') return `M${r(from)} ${r(y)}l8 7l8 -7`;
  return `M${r(from)} ${r(y - 4)}Q${r(from + 8)} ${r(y - 4)} ${r(Math.max(from + 16, tailX))} ${r(y + 10)}`;
}

/** Three slanted strokes through the tail, as they stand through a stem. */
function tremoloPath({ x, width, top, height }: StrumBlock): string {
  const middle = top + height / 2;
  return [0, 1, 2].map((k) => `M${r(x + width + 5 + 5 * k)} ${r(middle + 7)}l6 -14`).join('');
}

function accentPath({ x, width, top }: StrumBlock): string {
  const middle = x + width / 2;
  return `M${r(middle - 8)} ${r(top - 11)}l14 4l-14 4`;
}

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
          ? 'Slide in up'
          : 'Slide in down'
        : s?.marks.slideOut
          ? `Slide out ${s.marks.slideOut}`
          : 'Slide in/out',
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
