import { describe, expect, it } from 'vitest';
import { median } from '@wild-needle/core/dsp';
import { createRandom } from '@wild-needle/core/units';
import { createChance } from './chance';
import { compose } from './composition';
import { drawCell, drawCountedBeat, drawFeel, drawFeltTempo, drawGrid, strikingAt } from './counting';

const FOUR = { beats: 4, unit: 4 };
const THREE = { beats: 3, unit: 4 };
const SIX = { beats: 6, unit: 8 };
const chance = createChance(createRandom(3));
const many = <T>(draw: () => T): T[] => Array.from({ length: 300 }, draw);

describe('songs that are counted as people count', () => {
  it('have tempi that are felt: around 120, and dotted quarters slower', () => {
    const tempi = many(() => drawFeltTempo(chance, FOUR));
    expect(Math.min(...tempi)).toBeGreaterThan(60);
    expect(Math.max(...tempi)).toBeLessThan(205);
    expect(Math.abs(median(tempi)! - 120)).toBeLessThan(8);
    const dotted = many(() => drawFeltTempo(chance, SIX) / 1.5);
    expect(Math.max(...dotted)).toBeLessThan(100);
  });

  it('are struck most on the one, then on beats, which are dotted in six eighths', () => {
    const [one, beat, half, quarter] = [0, 1, 0.5, 0.25].map((q) => strikingAt(FOUR, q));
    expect([one, beat, half]).toEqual([one, beat, half, quarter].sort((a, b) => b - a).slice(0, 3));
    expect(strikingAt(SIX, 1.5)).toBe(beat);
    expect(strikingAt(SIX, 1)).toBeLessThan(half);
    expect(strikingAt(FOUR, 8)).toBe(one);
  });

  it('have the snare on two and four, and in the middle of six eighths', () => {
    const backbeats = many(() => drawCountedBeat(chance, FOUR, 'backbeat', false));
    expect(backbeats.every(({ snares, kicks }) => snares.join() === '4,12' && kicks.includes(0))).toBe(true);
    expect(many(() => drawCountedBeat(chance, SIX, 'backbeat', false).snares.join())).toEqual(
      many(() => '6'),
    );
  });

  it('have a fast two-beat where the tempo is fast alone, and no half of a fast tempo throughout', () => {
    expect(many(() => drawFeel(chance, 120))).not.toContain('two-beat');
    expect(many(() => drawFeel(chance, 170))).toContain('two-beat');
    expect(many(() => drawFeel(chance, 170))).not.toContain('halved');
  });

  it('have sixteenths in slow songs as often as not, and hardly any in fast ones', () => {
    const share = (bpm: number): number =>
      many(() => drawGrid(chance, FOUR, bpm)).filter((g) => g === 4).length / 300;
    expect(share(95)).toBeGreaterThan(0.3);
    expect(share(180)).toBeLessThan(0.12);
    expect(many(() => drawGrid(chance, SIX, 90)).every((grid) => grid === 2 || grid === 4)).toBe(true);
  });

  it('have rhythms that go round, from the one of each bar on, in more than half of the riffs', () => {
    const cells = many(() => drawCell(chance, FOUR, 4));
    const round = cells.filter((cell) => cell !== null);
    expect(Math.abs(round.length / 300 - 0.6)).toBeLessThan(0.1);
    expect(round.every((cell) => cell.has(0) && Math.max(...cell) < 16)).toBe(true);
    const six = many(() => drawCell(chance, SIX, 2)).flatMap((cell) => [...(cell ?? [])]);
    expect(Math.max(...six)).toBe(5);
  });

  it('do not strike a bar of three quarters in halves, as six eighths are', () => {
    const halves = many(() => [...(drawCell(chance, THREE, 2) ?? [])].join());
    expect(halves).not.toContain('0,3');
    expect(many(() => [...(drawCell(chance, SIX, 2) ?? [])].join())).toContain('0,3');
  });

  it('are in three quarters oftener than in six eighths, and in nothing else, where only these are wanted', () => {
    const meters = many(() => compose(chance, 5, 'three or six').meter);
    const inThree = meters.filter(({ beats, unit }) => beats === 3 && unit === 4).length;
    expect(Math.abs(inThree / 300 - 2 / 3)).toBeLessThan(0.1);
    expect(meters.filter(({ beats, unit }) => beats === 6 && unit === 8)).toHaveLength(300 - inThree);
  });

  it('begin with a pick-up now and then: the first bar is not struck from its start', () => {
    const songs = many(() => compose(chance, 20, 'any'));
    const late = songs.filter(({ strums }) => strums[0].atQuarter > 0);
    expect(late.length).toBeGreaterThan(30);
    expect(late.length).toBeLessThan(100);
  });
});
