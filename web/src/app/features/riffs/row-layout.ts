/**
 * Where everything of the written row stands: strings, strum blocks, tails, names. Pure arithmetic in pixels;
 * time is proportional, so the needle and all passes share one ruler.
 */
import { chordName, identifyChord, type Key } from '@wild-needle/core/theory';
import { soundingNotes, type Tuning } from '@wild-needle/core/guitar';
import { rulerCounts, soundingEndTicks, barStartsTicks, type Riff, type Strum } from '@wild-needle/core/riff';

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
  /** End of the ring in pixels; at most the next strum. */
  readonly tailX: number;
  /** Chord symbol; '' where it is not shown. */
  readonly name: string;
  readonly spoken: string;
}

export interface RowLayout {
  readonly lines: readonly StringLine[];
  readonly blocks: readonly StrumBlock[];
  readonly height: number;
  readonly counts: readonly { readonly x: number; readonly text: string; readonly onBeat: boolean }[];
  readonly barLines: readonly number[];
}

/** Distances of the design: open strings carry digits of 25 px, folded ones are a bundle. */
const OPEN_STEP = 30;
const FOLDED_STEP = 9;
/** Above the first string: room for half a block. */
const TOP = 18;
const BOTTOM = 20;
const BLOCK_WIDTH = 28;
const MUTED_WIDTH = 24;
/** Blocks shrink where strums stand close, down to what still shows a digit. */
const MIN_BLOCK_WIDTH = 15;
const BLOCK_GAP = 3;
/** A block reaches this far over its outer strings. */
const BLOCK_OVERHANG = 15;

export interface LayoutOptions {
  readonly tuning: Tuning;
  readonly key: Key | null;
  readonly widthPx: number;
  readonly window: TickWindow;
  /** A string to keep open although the riff does not use it: the one that is written on. */
  readonly openString: number | null;
}

export function xOf(ticks: number, { fromTicks, toTicks }: TickWindow, widthPx: number): number {
  return ((ticks - fromTicks) / (toTicks - fromTicks)) * widthPx;
}

export function chordNameOf(strum: Strum, tuning: Tuning, key: Key | null): string {
  if (strum.dead) return '';
  const chord = identifyChord(soundingNotes(tuning, strum.frets));
  return chord ? chordName(chord, key) : '';
}

function stringLines(riff: Riff, { tuning, openString }: LayoutOptions): StringLine[] {
  const used = new Set(riff.strums.flatMap((s) => s.frets.map((f) => f.string)));
  if (openString !== null) used.add(openString);
  // Nothing written yet: six bare strings.
  const allOpen = used.size === 0;
  let y = TOP;
  return tuning.stringsMidi.map((_, i) => {
    const string = i + 1;
    const open = allOpen || used.has(string);
    if (i > 0) {
      const previousOpen = allOpen || used.has(string - 1);
      y += open && previousOpen ? OPEN_STEP : open || previousOpen ? OPEN_STEP * 0.8 : FOLDED_STEP;
    }
    return { string, y, open };
  });
}

function spokenStrum(strum: Strum, name: string): string {
  if (strum.dead) return 'dead stroke';
  const frets = strum.frets.map((f) => `string ${f.string} fret ${f.fret}`).join(', ');
  return `${name}${strum.palmMute ? ' palm mute' : ''}: ${frets}`;
}

export function layoutRow(riff: Riff, options: LayoutOptions): RowLayout {
  const { tuning, key, widthPx, window } = options;
  const lines = stringLines(riff, options);
  const yOf = new Map(lines.map((l) => [l.string, l.y]));
  const x = (ticks: number): number => xOf(ticks, window, widthPx);
  const visible = (ticks: number): boolean => ticks >= window.fromTicks && ticks < window.toTicks;
  const openLines = lines.filter((l) => l.open);

  let shownName = '';
  const blocks = riff.strums.flatMap((strum, i): StrumBlock[] => {
    const name = chordNameOf(strum, tuning, key);
    // Muted strums repeat their name only when the chord changes.
    const shown = name !== '' && (!strum.palmMute || name !== shownName) ? name : '';
    if (name !== '') shownName = name;
    if (!visible(strum.startTicks)) return [];
    const left = x(strum.startTicks);
    const next = riff.strums[i + 1];
    const gap = next ? x(next.startTicks) - left - BLOCK_GAP : Infinity;
    const width = Math.max(MIN_BLOCK_WIDTH, Math.min(strum.palmMute ? MUTED_WIDTH : BLOCK_WIDTH, gap));
    const struck = strum.frets.length > 0 ? strum.frets.map((f) => f.string) : openLines.map((l) => l.string);
    const ys = struck.map((s) => yOf.get(s) ?? TOP);
    const top = Math.min(...ys) - BLOCK_OVERHANG;
    return [
      {
        id: strum.id,
        x: left,
        width,
        top,
        height: Math.max(...ys) + BLOCK_OVERHANG - top,
        digits: strum.dead
          ? []
          : strum.frets.map((f) => ({ string: f.string, y: yOf.get(f.string) ?? TOP, text: String(f.fret) })),
        crosses: strum.dead ? ys : [],
        palmMute: strum.palmMute,
        dead: strum.dead,
        tailX: Math.max(left + width, Math.min(widthPx, x(soundingEndTicks(riff, i)))),
        name: shown,
        spoken: spokenStrum(strum, name),
      },
    ];
  });
  return {
    lines,
    blocks,
    height: (lines.at(-1)?.y ?? 0) + BOTTOM,
    counts: rulerCounts(riff)
      .filter((c) => visible(c.ticks))
      .map((c) => ({ x: x(c.ticks), text: c.text, onBeat: c.onBeat })),
    barLines: barStartsTicks(riff).filter(visible).map(x),
  };
}

/** Curved wedge from block height to a point at the end of the ring. */
export function tailPath({ x, width, top, height, tailX }: StrumBlock): string {
  const start = x + width - 2;
  const middle = top + height / 2;
  const bend = start + (tailX - start) * 0.45;
  const r = (v: number): number => Math.round(v * 10) / 10;
  return (
    `M${r(start)} ${r(top + 2)} Q${r(bend)} ${r(middle - height * 0.12)} ${r(tailX)} ${r(middle)} ` +
    `Q${r(bend)} ${r(middle + height * 0.12)} ${r(start)} ${r(top + height - 2)}Z`
  );
}
