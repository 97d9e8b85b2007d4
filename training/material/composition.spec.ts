import { describe, expect, it } from 'vitest';
import { createRandom } from '@wild-needle/core/units';
import { createChance } from './chance';
import { compose } from './composition';

const songs = Array.from({ length: 40 }, (_, seed) => compose(createChance(createRandom(seed)), 20));

describe('a composed song', () => {
  it('has strums in order of time, each over before the next', () => {
    for (const { strums } of songs) {
      strums.forEach((strum, k) => {
        expect(strum.endQuarter).toBeGreaterThan(strum.atQuarter);
        if (k > 0) expect(strum.atQuarter).toBeGreaterThanOrEqual(strums[k - 1].endQuarter - 1e-9);
      });
    }
  });

  it('has bars without gaps, and sections that begin and end with them', () => {
    for (const { bars, sections } of songs) {
      bars.slice(1).forEach((bar, k) => {
        expect(bar.atQuarter).toBeCloseTo(bars[k].atQuarter + bars[k].quarters, 9);
      });
      const starts = bars.map((b) => b.atQuarter.toFixed(6));
      for (const { startQuarter } of sections) expect(starts).toContain(startQuarter.toFixed(6));
    }
  });

  it('sounds notes from low to high, and none in a dead stroke', () => {
    for (const strum of songs.flatMap((s) => s.strums)) {
      expect(strum.dead).toBe(strum.midi.length === 0);
      expect([...strum.midi].sort((a, b) => a - b)).toEqual([...strum.midi]);
    }
  });

  it('is the same for the same seed', () => {
    expect(compose(createChance(createRandom(7)), 20)).toEqual(songs[7]);
  });
});
