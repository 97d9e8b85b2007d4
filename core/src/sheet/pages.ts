/**
 * How a song lies on paper: riffs as systems of whole bars that keep their strums apart, systems on pages so that no riff is cut where it
 * fits on one. Pixels of the page; what is drawn in them is up to the screen, the printer or the file.
 */
import { barStartsTicks, riffTicks, ticksPerBeat, type Riff } from '../riff';
import type { Ticks } from '../units';

export interface Paper {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** At 96 px an inch, the unit of browsers (CSS Values and Units, level 3). A4: ISO 216; Letter: ANSI Y14.1. */
export const PAPERS = {
  a4: { label: 'A4', widthPx: 1123, heightPx: 794, css: 'A4' },
  letter: { label: 'Letter', widthPx: 1056, heightPx: 816, css: 'letter' },
  /** A tablet of 16 by 10. */
  screen: { label: 'Screen', widthPx: 1123, heightPx: 702, css: '297mm 186mm' },
} as const;
export type PaperName = keyof typeof PAPERS;

export function paperOf(name: PaperName, isUpright: boolean): Paper {
  const { widthPx, heightPx } = PAPERS[name];
  return isUpright ? { widthPx: heightPx, heightPx: widthPx } : { widthPx, heightPx };
}

/** Bars of a riff in one row. */
export interface System {
  readonly riffId: string;
  readonly fromBar: number;
  readonly bars: number;
  readonly fromTicks: Ticks;
  readonly toTicks: Ticks;
  readonly isFirst: boolean;
  readonly isLast: boolean;
}

/** Nearer than this, two blocks of a row touch. */
const LEAST_APART_PX = 17;

/** The riff in as few rows as keep its strums apart; each holds whole bars, and as many as the others where that is possible. */
export function systemsOf(riff: Riff, widthPx: number): System[] {
  const starts = [...barStartsTicks(riff), riffTicks(riff)];
  const all = [...riff.strums, ...riff.guitar2].map((s) => s.startTicks).sort((a, b) => a - b);
  const apart = all.slice(1).map((ticks, i) => ticks - all[i]);
  const least = Math.min(...apart.filter((t) => t > 0), ...riff.bars.map((b) => ticksPerBeat(b.unit)));
  const longest = (bars: number): number => Math.max(...starts.slice(bars).map((end, i) => end - starts[i]));
  let bars = riff.bars.length;
  while (bars > 1 && (least / longest(bars)) * widthPx < LEAST_APART_PX) bars--;
  const rows = Math.ceil(riff.bars.length / bars);
  const perRow = Math.ceil(riff.bars.length / rows);
  return Array.from({ length: rows }, (_, row): System => {
    const fromBar = row * perRow;
    const toBar = Math.min(riff.bars.length, fromBar + perRow);
    return {
      riffId: riff.id,
      fromBar,
      bars: toBar - fromBar,
      fromTicks: starts[fromBar],
      toTicks: starts[toBar],
      isFirst: row === 0,
      isLast: row === rows - 1,
    };
  });
}

/** Something of a height that stands on one page whole. */
export interface Block {
  readonly heightPx: number;
  /** Belongs to the one before it: they part only where both don't fit on one page. */
  readonly isContinued: boolean;
}

/** Indices of the blocks of each page; the first page has less room, its head stands there. At least one block a page, however tall. */
export function paginate(blocks: readonly Block[], firstPx: number, otherPx: number): number[][] {
  const pages: number[][] = [[]];
  let room = firstPx;
  const heightOf = (indices: readonly number[]): number =>
    indices.reduce((sum, i) => sum + blocks[i].heightPx, 0);
  const groups: number[][] = [];
  blocks.forEach((block, i) => {
    if (block.isContinued && groups.length > 0) groups[groups.length - 1].push(i);
    else groups.push([i]);
  });
  const turn = (): void => {
    pages.push([]);
    room = otherPx;
  };
  const put = (index: number): void => {
    if (blocks[index].heightPx > room && pages[pages.length - 1].length > 0) turn();
    pages[pages.length - 1].push(index);
    room -= blocks[index].heightPx;
  };
  for (const group of groups) {
    const height = heightOf(group);
    if (height > room && height <= otherPx && pages[pages.length - 1].length > 0) turn();
    group.forEach(put);
  }
  return pages;
}
