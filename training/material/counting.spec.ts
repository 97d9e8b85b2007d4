import { describe, expect, it } from 'vitest';
import { median } from '@wild-needle/core/dsp';
import { createRandom } from '@wild-needle/core/units';
import { createChance } from './chance';
import { compose } from './composition';
import { drawCountedBeat, drawFeel, drawFeltTempo, strikingAt } from './counting';

const FOUR = { beats: 4, unit: 4 };
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

  it('begin with a pick-up now and then: the first bar is not struck from its start', () => {
    const songs = many(() => compose(chance, 20, true));
    const late = songs.filter(({ strums }) => strums[0].atQuarter > 0);
    expect(late.length).toBeGreaterThan(30);
    expect(late.length).toBeLessThan(100);
  });
});
