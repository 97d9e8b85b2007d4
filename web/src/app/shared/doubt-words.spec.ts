import { describe, expect, it } from 'vitest';
import type { BeatGrid } from '@wild-needle/core/riff';
import { isOpen } from './doubt-words';

/** Eight bars of 4/4 at 120 bpm from the first second on. */
const GRID: BeatGrid = {
  beatsS: Array.from({ length: 33 }, (_, i) => 1 + i / 2),
  bars: Array.from({ length: 8 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 })),
};
const NO_BEATS: BeatGrid = { beatsS: [], bars: [] };
const other = (tempoBpm: number) => ({
  kind: 'tempo' as const,
  other: { tempoBpm, meter: { beats: 4, unit: 4 as const }, probability: 0.4 },
});

describe('a doubt that the user has settled is open no more', () => {
  it('beats were tapped where none were heard', () => {
    expect([isOpen({ kind: 'no-pulse' }, NO_BEATS), isOpen({ kind: 'no-pulse' }, GRID)]).toEqual([
      true,
      false,
    ]);
  });

  it('bars stand where there was no steady beat', () => {
    const free = (startS: number, endS: number) => ({ kind: 'free-time' as const, startS, endS });
    expect(isOpen(free(4, 9), GRID)).toBe(false);
    expect(isOpen(free(30, 40), GRID)).toBe(true);
  });

  it('the other reading was taken', () => {
    expect([isOpen(other(120), GRID), isOpen(other(90), GRID), isOpen(other(90), NO_BEATS)]).toEqual([
      false,
      true,
      false,
    ]);
  });

  it('stays where nothing can settle it by hand', () => {
    expect(isOpen({ kind: 'faint' }, GRID)).toBe(true);
  });
});
