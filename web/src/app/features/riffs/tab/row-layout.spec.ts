import { describe, expect, it } from 'vitest';
import { layoutRow } from './row-layout';
import { tailPath } from './strum-shapes';
import { OPTIONS, RIFF, strum } from './test-row';

describe('row layout', () => {
  const layout = layoutRow(RIFF, OPTIONS);

  it('places strums by their time', () => {
    expect(layout.blocks.map((b) => b.x)).toEqual([0, 200, 400, 600]);
    expect(layout.counts.filter((c) => c.onBeat).map((c) => c.x)).toEqual([0, 200, 400, 600]);
    expect(layout.counts.map((c) => c.text)).toContain('&');
    const narrow = layoutRow(RIFF, { ...OPTIONS, widthPx: 120 });
    expect(narrow.counts.slice(0, -1).map((c) => c.text)).toEqual(['1', '2', '3', '4']);
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

  it('makes names smaller where the next one is near', () => {
    const sizes = (gapTicks: number): number[] => {
      const strums = [
        strum(0, [
          [6, 0],
          [5, 2],
        ]),
        strum(gapTicks, [
          [6, 3],
          [5, 5],
        ]),
      ];
      return layoutRow({ ...RIFF, strums }, OPTIONS).blocks.map((b) => b.nameSizePx);
    };
    expect(sizes(960)).toEqual([34, 34]);
    const [near, last] = sizes(120);
    expect(near).toBeGreaterThan(14);
    expect(near * 0.41 * 'E5'.length).toBeLessThan(25);
    expect(last).toBe(34);
    expect(sizes(30)[0]).toBe(14);
  });

  it('leaves the octave to the digits where there is no room for the word', () => {
    const octave: [number, number][] = [
      [5, 5],
      [3, 7],
    ];
    const strums = [strum(0, octave), strum(240, [[6, 1]])];
    const nameAt = (widthPx: number): string =>
      layoutRow({ ...RIFF, strums }, { ...OPTIONS, widthPx }).blocks[0].name;
    expect(nameAt(2000)).toBe('D octave');
    expect(nameAt(600)).toBe('D');
  });

  it('names a chord where it changes and at each bar where strums stand too close for every name', () => {
    const bars = [RIFF.bars[0], RIFF.bars[0]];
    const chords: [number, number][][] = [
      ...Array.from({ length: 10 }, (): [number, number][] => [
        [6, 0],
        [5, 2],
      ]),
      ...Array.from({ length: 6 }, (): [number, number][] => [
        [6, 3],
        [5, 5],
      ]),
    ];
    const strums = chords.map((frets, i) => strum(480 * i, frets));
    const window = { fromTicks: 0, toTicks: 7680 };
    const names = (widthPx: number): string[] =>
      layoutRow({ ...RIFF, bars, strums }, { ...OPTIONS, window, widthPx }).blocks.map((b) => b.name);
    expect(names(800)).toEqual([...Array<string>(10).fill('E5'), ...Array<string>(6).fill('G5')]);
    expect(names(400).flatMap((name, i) => (name ? [[i, name]] : []))).toEqual([
      [0, 'E5'],
      [8, 'E5'],
      [10, 'G5'],
    ]);
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
