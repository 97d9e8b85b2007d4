import { describe, expect, it } from 'vitest';
import { drawMap, type MapBlock } from './map-geometry';
import { roadMapPicture } from './map-picture';

const block = (id: string, letter: string, startS: number, endS: number, transpose = 0): MapBlock => ({
  id,
  name: `Part ${id}`,
  letter,
  startS,
  endS,
  transpose,
  played: '×2',
  notches: [0.5],
  isChosen: false,
  isDoubtful: false,
  checkedShare: null,
});
const BLOCKS = [block('1', 'A', 0, 10), block('2', 'B', 10, 20), block('3', 'A', 20, 40, 2)];

describe('the road map', () => {
  it('has a row per riff, a notch per further pass, and an arc from each place of a riff to the next', () => {
    const map = drawMap(BLOCKS, 40, 1000);
    expect(map.rows.map((r) => r.letter)).toEqual(['A', 'B']);
    expect(map.arcs).toHaveLength(1);
    expect(map.arcs[0]).toMatchObject({ letter: 'A', isMoved: true });
    expect(map.blocks.map((b) => [b.fromX, b.toX])).toEqual([
      [0, 250],
      [250, 500],
      [500, 1000],
    ]);
    expect(map.blocks[1].top).toBeGreaterThan(map.blocks[0].top);
    expect(map.blocks[2].label).toBe('+2 ×2');
  });

  it('makes rows lower where there are many riffs, so that the list below keeps its room', () => {
    const many = Array.from({ length: 8 }, (_, i) => block(String(i), 'ABCDEFGH'[i], 5 * i, 5 * i + 5));
    const [three, eight] = [drawMap(BLOCKS, 40, 1000), drawMap(many, 40, 1000)];
    expect(eight.blockHeight).toBeLessThan(three.blockHeight);
    expect(eight.height).toBeLessThan(84 + 8 * (three.blockHeight + 4));
    const tops = eight.blocks.map((b) => b.top);
    for (let i = 1; i < tops.length; i++) {
      expect(tops[i]).toBeGreaterThanOrEqual(tops[i - 1] + eight.blockHeight);
    }
    expect(tops[7] + eight.blockHeight).toBeLessThan(eight.height);
  });

  it('is a well-formed picture with every name, whatever the names are', () => {
    const picture = roadMapPicture({
      title: 'Rust & <Rain>',
      artist: 'Some "Band"',
      facts: 'Drop D · 120 bpm',
      order: 'A ×2, B ×2',
      durationS: 40,
      blocks: BLOCKS,
    });
    const parsed = new DOMParser().parseFromString(picture, 'image/svg+xml');
    expect(parsed.querySelector('parsererror')).toBeNull();
    expect(parsed.querySelector('title')?.textContent).toBe('Rust & <Rain>');
    for (const { name } of BLOCKS) expect(parsed.documentElement.textContent).toContain(name);
    expect(parsed.documentElement.textContent).toContain('A ×2, B ×2');
  });
});
