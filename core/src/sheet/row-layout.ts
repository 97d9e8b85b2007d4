/**
 * Where everything of a written riff stands: time is proportional, used strings are spread so that digits can be
 * large, strings that the riff never touches are folded to a bundle. Pixels; the screen, the printer and the file draw it.
 */
import type { StringFret, Tuning } from '../guitar';
import {
  barStartsTicks,
  isBlank,
  lostNotes,
  rulerCounts,
  soundingEndTicks,
  strokeOf,
  strumNotes,
  type Marks,
  type Riff,
  type Strum,
} from '../riff';
import { nameNotes, type Key } from '../theory';

/** The part of the riff that is on screen. */
export interface TickWindow {
  readonly fromTicks: number;
  readonly toTicks: number;
}

export interface StringLine {
  /** 1 = highest. */
  readonly string: number;
  readonly y: number;
  /** False for strings that are folded into the bundle. */
  readonly open: boolean;
}

/** A string on which a strum is reached from the one before. */
export interface Join {
  readonly fromX: number;
  readonly toX: number;
  readonly y: number;
  /** Of the fret: 1 up, -1 down, 0 the same. */
  readonly rises: number;
}

export interface StrumBlock {
  readonly id: string;
  readonly x: number;
  readonly width: number;
  readonly top: number;
  readonly height: number;
  readonly digits: readonly { readonly string: number; readonly y: number; readonly text: string }[];
  /** Centres of the crosses of a dead stroke. */
  readonly crosses: readonly number[];
  readonly palmMute: boolean;
  readonly dead: boolean;
  readonly rest: boolean;
  /** Nothing is written yet. */
  readonly blank: boolean;
  readonly marks: Marks;
  readonly joins: readonly Join[];
  readonly stroke: 'down' | 'up' | null;
  /** End of the ring in pixels. */
  readonly tailX: number;
  /** Chord symbol; '' where it is not shown. */
  readonly name: string;
  /** So that it ends before the next name begins. */
  readonly nameSizePx: number;
  /** So that they stay within the block, and within the pill of a muted one. */
  readonly digitSizePx: number;
  /** From the edge of a muted block to the pill that its digit stands on. */
  readonly pillInset: number;
  readonly spoken: string;
  /** Was heard to be so, or written by hand, or is only a guess. */
  readonly isGuess: boolean;
  /** The ear has left it for later. */
  readonly isDoubtful: boolean;
  readonly hasNote: boolean;
  /** A note of it can't be played in this tuning. */
  readonly isMissing: boolean;
}

export interface RowLayout {
  readonly lines: readonly StringLine[];
  readonly blocks: readonly StrumBlock[];
  readonly height: number;
  readonly counts: readonly CountPlace[];
  readonly barLines: readonly number[];
  /** Where each bar in view begins, and its number in the riff from 1. */
  readonly barNumbers: readonly { readonly x: number; readonly number: number }[];
}

export interface CountPlace {
  readonly x: number;
  readonly text: string;
  readonly onBeat: boolean;
}

/** Distances of the design: open strings carry digits of 25 px, folded ones are a bundle. */
const OPEN_STEP = 30;
const FOLDED_STEP = 9;
/** With more strings in use than this they stand closer, so that the passes keep their room. */
const MANY_STRINGS = 5;
const CLOSE_STEP = 25;
/** Above the first string: room for half a block. */
const TOP = 18;
/** Below the last: half a block and the wedge of the stroke. */
const BOTTOM = 32;
const BLOCK_WIDTH = 28;
const MUTED_WIDTH = 24;
/** Blocks shrink where strums stand close, whatever is left. */
const MIN_BLOCK_WIDTH = 3;
const BLOCK_GAP = 3;
/** Digits, and two of them side by side or in a narrow block. */
const DIGIT_PX = 25;
const NARROW_DIGIT_PX = 20;
/** Between a block's edge and the pill of a muted digit, and around a digit in its block. */
const PILL_INSET = 3;
const NARROW_INSET = 1.5;
/** Chord symbols over ringing and over muted strums, and the smallest that can be read. */
const NAME_PX = 34;
const MUTED_NAME_PX = 22;
const LEAST_NAME_PX = 14;
const CROWDED_PX = 36;
/** Less between two names and they read as one. */
const NAME_GAP = 8;
/** Width of a character of the display font, as a share of its size. */
export const CHARACTER_WIDTH = 0.41;
/** Counts between beats are left out where they would stand on the next one. */
const LEAST_COUNT_PX = 20;
/** A count on a beat: its mark and distance from it, and a character of 20 px. */
const COUNT_INDENT_PX = 11;
const COUNT_CHARACTER_PX = 9;
/** A block reaches this far over its outer strings. */
const BLOCK_OVERHANG = 15;

export interface LayoutOptions {
  readonly tuning: Tuning;
  readonly key: Key | null;
  readonly widthPx: number;
  readonly window: TickWindow;
  /** A string to keep open although the riff does not use it: the one that is written on. */
  readonly openString: number | null;
  /** How a strum is spoken: its name, and the notes of it that this tuning lacks. */
  readonly speak: (strum: Strum, name: string, lost: readonly number[], key: Key | null) => string;
}

export function xOf(ticks: number, { fromTicks, toTicks }: TickWindow, widthPx: number): number {
  return ((ticks - fromTicks) / (toTicks - fromTicks)) * widthPx;
}

export function chordNameOf(strum: Strum, tuning: Tuning, key: Key | null): string {
  return nameNotes(strumNotes(strum, tuning), key).symbol;
}

function stringLines(riff: Riff, { tuning, openString }: LayoutOptions): StringLine[] {
  const used = new Set(riff.strums.flatMap((s) => s.frets.map((f) => f.string)));
  if (openString !== null) used.add(openString);
  // Nothing written yet: six bare strings.
  const allOpen = used.size === 0;
  const step = (allOpen ? tuning.stringsMidi.length : used.size) > MANY_STRINGS ? CLOSE_STEP : OPEN_STEP;
  let y = TOP;
  return tuning.stringsMidi.map((_, i) => {
    const string = i + 1;
    const open = allOpen || used.has(string);
    if (i > 0) {
      const previousOpen = allOpen || used.has(string - 1);
      y += open && previousOpen ? step : open || previousOpen ? step * 0.8 : FOLDED_STEP;
    }
    return { string, y, open };
  });
}

function joinsOf(
  strum: Strum,
  before: { readonly frets: readonly StringFret[]; readonly endX: number } | null,
  x: number,
  yOf: ReadonlyMap<number, number>,
): Join[] {
  if (strum.marks.join === null || !before) return [];
  return strum.frets.flatMap(({ string, fret }) => {
    const from = before.frets.find((f) => f.string === string);
    return from
      ? [{ fromX: before.endX, toX: x, y: yOf.get(string) ?? TOP, rises: Math.sign(fret - from.fret) }]
      : [];
  });
}

/** Room from each named block to the next, in pixels. */
function roomsOf(named: readonly StrumBlock[]): Map<string, number> {
  return new Map(named.map(({ id, x }, i) => [id, (named[i + 1]?.x ?? Infinity) - x - NAME_GAP]));
}

/**
 * Names that end before the next one begins. Where strums stand too close, a chord is named where it changes and at the start
 * of each bar, as on a chord chart; where it changes too fast for that, names shrink.
 */
function fitNames(blocks: readonly StrumBlock[], barLines: readonly number[]): StrumBlock[] {
  const named = blocks.filter((block) => block.name !== '');
  const rooms = roomsOf(named);
  const widthOf = ({ name, nameSizePx }: StrumBlock): number => CHARACTER_WIDTH * name.length * nameSizePx;
  const isTight = named.some((block) => widthOf(block) > (rooms.get(block.id) ?? Infinity));
  const barOf = ({ x }: StrumBlock): number => barLines.findLastIndex((line) => line <= x);
  const isRepeat = (block: StrumBlock, i: number): boolean =>
    i > 0 && block.name === named[i - 1].name && barOf(block) === barOf(named[i - 1]);
  const kept = isTight ? named.filter((block, i) => !isRepeat(block, i)) : named;
  const keptRooms = roomsOf(kept);
  return blocks.map((block) => {
    const room = keptRooms.get(block.id);
    if (room === undefined) return { ...block, name: '' };
    const fittingPx = (text: string): number => room / (CHARACTER_WIDTH * text.length);
    // 'D octave' is told by its two strings where there is room for the D alone.
    const name = fittingPx(block.name) < LEAST_NAME_PX ? block.name.split(' ')[0] : block.name;
    // What has no room at all is told by the digits and the panel.
    if (fittingPx(name) < LEAST_NAME_PX) return { ...block, name: '' };
    return {
      ...block,
      name,
      nameSizePx: Math.min(block.nameSizePx, fittingPx(name)),
    };
  });
}

/** The size of a strum's digits in a block of this width. */
function digitSize({ frets, palmMute, marks }: Strum, width: number, inset: number): number {
  const longest = Math.max(1, ...frets.map((f) => String(f.fret).length));
  const isNarrow = longest > 1 || width < MUTED_WIDTH || marks.harmonic === 'natural';
  const room = width - 2 * (palmMute ? inset : NARROW_INSET);
  return Math.min(isNarrow ? NARROW_DIGIT_PX : DIGIT_PX, room / (CHARACTER_WIDTH * longest));
}

/** Strums stand so close that only open chords are named. */
function isCrowded({ strums }: Riff, x: (ticks: number) => number): boolean {
  return strums.slice(1).some((s, i) => x(s.startTicks) - x(strums[i].startTicks) < CROWDED_PX);
}

/** Counts that don't stand on the next one; of beats too near to each other those that begin a bar stay. */
function fitCounts(counts: readonly CountPlace[], barLines: readonly number[]): CountPlace[] {
  const between = counts.filter((c, i) => c.onBeat || (counts[i + 1]?.x ?? Infinity) - c.x >= LEAST_COUNT_PX);
  let end = -Infinity;
  const kept: CountPlace[] = [];
  for (const count of between) {
    const beginsBar = barLines.includes(count.x);
    if (count.x < end && !beginsBar) continue;
    while (beginsBar && kept.length > 0 && count.x < endOf(kept[kept.length - 1])) kept.pop();
    kept.push(count);
    end = endOf(count);
  }
  return kept;
}

function endOf({ x, text, onBeat }: CountPlace): number {
  return x + (onBeat ? COUNT_INDENT_PX + COUNT_CHARACTER_PX * text.length : LEAST_COUNT_PX);
}

export function layoutRow(riff: Riff, options: LayoutOptions): RowLayout {
  const { tuning, key, widthPx, window, speak } = options;
  const lines = stringLines(riff, options);
  const yOf = new Map(lines.map((l) => [l.string, l.y]));
  const x = (ticks: number): number => xOf(ticks, window, widthPx);
  const visible = (ticks: number): boolean => ticks >= window.fromTicks && ticks < window.toTicks;
  const openLines = lines.filter((l) => l.open);

  const crowded = isCrowded(riff, x);
  let shownName = '';
  let before: { frets: readonly StringFret[]; endX: number } | null = null;
  const blocks = riff.strums.flatMap((strum, i): StrumBlock[] => {
    const name = chordNameOf(strum, tuning, key);
    // Muted strums have a name only when the chord changes; none in a crowd, where chords are named as they are struck open.
    const shown = name !== '' && (!strum.palmMute || (name !== shownName && !crowded)) ? name : '';
    if (name !== '') shownName = name;
    const left = x(strum.startTicks);
    const next = riff.strums[i + 1];
    const gap = next ? x(next.startTicks) - left - BLOCK_GAP : Infinity;
    const width = Math.max(MIN_BLOCK_WIDTH, Math.min(strum.palmMute ? MUTED_WIDTH : BLOCK_WIDTH, gap));
    const pillInset = width < MUTED_WIDTH ? NARROW_INSET : PILL_INSET;
    const joins = joinsOf(strum, before, left, yOf);
    before = { frets: strum.frets, endX: left + width };
    if (!visible(strum.startTicks)) return [];
    const lost = lostNotes(strum, tuning);
    const isBare = strum.frets.length === 0 || strum.rest;
    const struck = isBare ? openLines.map((l) => l.string) : strum.frets.map((f) => f.string);
    const ys = struck.map((s) => yOf.get(s) ?? TOP);
    const top = Math.min(...ys) - BLOCK_OVERHANG;
    return [
      {
        id: strum.id,
        x: left,
        width,
        top,
        height: Math.max(...ys) + BLOCK_OVERHANG - top,
        digits:
          strum.dead || strum.rest
            ? []
            : strum.frets.map((f) => ({
                string: f.string,
                y: yOf.get(f.string) ?? TOP,
                text: String(f.fret),
              })),
        crosses: strum.dead ? ys : [],
        palmMute: strum.palmMute,
        dead: strum.dead,
        rest: strum.rest,
        blank: isBlank(strum),
        marks: strum.marks,
        joins,
        stroke: strokeOf(riff, strum),
        tailX: Math.max(left + width, Math.min(widthPx, x(soundingEndTicks(riff, i)))),
        name: shown,
        nameSizePx: strum.palmMute ? MUTED_NAME_PX : NAME_PX,
        digitSizePx: digitSize(strum, width, pillInset),
        pillInset,
        spoken: speak(strum, name, lost, key),
        isGuess: strum.trust === 'guessed',
        isDoubtful: strum.trust === 'doubtful',
        hasNote: strum.note !== '',
        isMissing: lost.length > 0,
      },
    ];
  });
  const bars = barStartsTicks(riff).flatMap((ticks, bar) =>
    visible(ticks) ? [{ x: x(ticks), number: bar + 1 }] : [],
  );
  const barLines = bars.map((bar) => bar.x);
  const counts = rulerCounts(riff)
    .filter((c) => visible(c.ticks))
    .map((c) => ({ x: x(c.ticks), text: c.text, onBeat: c.onBeat }));
  return {
    lines,
    blocks: fitNames(blocks, barLines),
    height: (lines.at(-1)?.y ?? 0) + BOTTOM,
    counts: fitCounts(counts, barLines),
    barLines,
    barNumbers: bars,
  };
}
