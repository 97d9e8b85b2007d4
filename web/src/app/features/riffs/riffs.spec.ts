import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '@wild-needle/core/guitar';
import type { Riff, Strum } from '@wild-needle/core/riff';
import { createFretEntry } from './fret-entry';
import { layoutRow, tailPath } from './row-layout';

function strum(
  startTicks: number,
  frets: readonly (readonly [number, number])[],
  marks: Partial<Strum> = {},
): Strum {
  return {
    id: String(startTicks),
    startTicks,
    durationTicks: 960,
    frets: frets.map(([string, fret]) => ({ string, fret })),
    palmMute: false,
    dead: false,
    trust: 'heard',
    ...marks,
  };
}
const RIFF: Riff = {
  id: 'r',
  letter: 'A',
  name: 'R',
  bars: [{ beats: 4, unit: 4 }],
  strums: [
    strum(0, [
      [6, 0],
      [5, 2],
    ]),
    strum(
      960,
      [
        [6, 0],
        [5, 2],
      ],
      { palmMute: true },
    ),
    strum(1920, [], { dead: true }),
    strum(2880, [
      [6, 3],
      [5, 5],
    ]),
  ],
};
const OPTIONS = {
  tuning: STANDARD_TUNING,
  key: null,
  widthPx: 800,
  window: { fromTicks: 0, toTicks: 3840 },
  openString: null,
};

describe('row layout', () => {
  const layout = layoutRow(RIFF, OPTIONS);

  it('places strums by their time', () => {
    expect(layout.blocks.map((b) => b.x)).toEqual([0, 200, 400, 600]);
    expect(layout.counts.filter((c) => c.onBeat).map((c) => c.x)).toEqual([0, 200, 400, 600]);
  });

  it('folds strings that the riff does not touch and spreads the others', () => {
    expect(layout.lines.filter((l) => l.open).map((l) => l.string)).toEqual([5, 6]);
    expect(layout.lines[5].y - layout.lines[4].y).toBe(30);
    expect(layout.lines[1].y - layout.lines[0].y).toBe(9);
    expect(layoutRow(RIFF, { ...OPTIONS, openString: 1 }).lines[0].open).toBe(true);
  });

  it('shows six bare strings for an empty riff', () => {
    expect(layoutRow({ ...RIFF, strums: [] }, OPTIONS).lines.every((l) => l.open)).toBe(true);
  });

  it('names a muted strum only when its chord is new, and a dead one never', () => {
    expect(layout.blocks.map((b) => b.name)).toEqual(['E5', '', '', 'G5']);
    expect(layout.blocks[2].crosses).toHaveLength(2);
  });

  it('ends a ring at the next strum', () => {
    expect(layout.blocks[0].tailX).toBe(200);
    expect(tailPath(layout.blocks[0])).toMatch(/^M26 .* 200 /);
  });

  it('narrows blocks that stand close, and leaves out what is not on this page', () => {
    const close = { ...RIFF, strums: [strum(0, [[6, 0]]), strum(120, [[6, 1]])] };
    expect(layoutRow(close, OPTIONS).blocks[0].width).toBeLessThan(28);
    expect(layoutRow(RIFF, { ...OPTIONS, window: { fromTicks: 1920, toTicks: 3840 } }).blocks).toHaveLength(
      2,
    );
  });
});

describe('fret entry', () => {
  it('joins two quick digits at one place', () => {
    const entry = createFretEntry();
    expect(entry.type(1, 'a', 0)).toBe(1);
    expect(entry.type(2, 'a', 300)).toBe(12);
    expect(entry.type(3, 'a', 400)).toBe(3);
  });

  it.each([
    ['too late', 'a', 900, 5, 5],
    ['at another place', 'b', 100, 5, 5],
    ['beyond the neck', 'a', 100, 9, 9],
  ])('starts anew %s', (_, place, at, digit, fret) => {
    const entry = createFretEntry();
    entry.type(digit === 9 ? 2 : 1, 'a', 0);
    expect(entry.type(digit, place, at)).toBe(fret);
  });
});
