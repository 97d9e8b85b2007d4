import { describe, expect, it } from 'vitest';
import type { SongDocument } from './document';
import { RANGES } from './limits';
import { doubleTempo, halveTempo, whyNotDoubleTempo, whyNotHalve } from './tempo-edit';
import { SONG, timesOf } from './test-grid-song';

function expectSameTimes(a: SongDocument, b: SongDocument): void {
  const [one, other] = [timesOf(a), timesOf(b)];
  expect(other).toHaveLength(one.length);
  one.forEach((t, i) => expect(other[i]).toBeCloseTo(t, 6));
}

describe('tempo', () => {
  it('doubled and halved again is the same, and every strum stays where it sounds', () => {
    const doubled = doubleTempo(SONG);
    expect(doubled.grid.bars).toHaveLength(32);
    expect(doubled.riffs[0].bars).toHaveLength(4);
    expectSameTimes(SONG, doubled);
    const back = halveTempo(doubled);
    expect(back.grid.bars).toEqual(SONG.grid.bars);
    expect(back.riffs).toEqual(SONG.riffs);
    expect(back.sections).toEqual(SONG.sections);
    expectSameTimes(SONG, back);
  });

  it('can be halved where bars pair up, and says why where they do not', () => {
    expectSameTimes(SONG, halveTempo(SONG));
    const odd = { ...SONG, riffs: [{ ...SONG.riffs[0], bars: SONG.riffs[0].bars.slice(1) }] };
    expect(whyNotHalve(odd)).toEqual({ kind: 'odd-bars', letter: 'A' });
    expect(halveTempo(odd)).toBe(odd);
    const apart = { ...SONG, sections: [SONG.sections[0], { ...SONG.sections[1], startBar: 9 }] };
    expect(whyNotHalve(apart)).toEqual({ kind: 'starts-inside-bar', section: 'Chorus' });
  });

  it('is not doubled where the last half beat would lie behind the latest time that there is', () => {
    const last = RANGES.timeS[1];
    const beatsS = [...SONG.grid.beatsS.slice(0, -1), last - 0.1];
    const late: SongDocument = { ...SONG, grid: { ...SONG.grid, beatsS } };
    expect(doubleTempo(late)).toBe(late);
    expect(whyNotDoubleTempo(late)).toEqual({ kind: 'too-late-to-double' });
    expect(whyNotDoubleTempo(SONG)).toBeNull();
  });

  it('is not doubled beyond what anybody counts', () => {
    const doubled = doubleTempo(SONG);
    const again = doubleTempo(doubled);
    expect(again).not.toBe(doubled);
    expect(whyNotDoubleTempo(again)).toEqual({ kind: 'too-fast-to-double' });
    expect(doubleTempo(again)).toBe(again);
  });

  it('can be halved where the recording ends within a bar', () => {
    const { bars } = SONG.grid;
    const cut: SongDocument = {
      ...SONG,
      grid: {
        beatsS: Array.from({ length: 71 }, (_, i) => 1 + 0.6 * i),
        bars: [...bars, ...[4, 2].map((beats, i) => ({ beat: 64 + 4 * i, beats, unit: 4 as const }))],
      },
    };
    expect(whyNotHalve(cut)).toBeNull();
    const halved = halveTempo(cut);
    expect(halved.grid.bars.at(-1)).toEqual({ beat: 32, beats: 3, unit: 4 });
    expectSameTimes(cut, halved);
    // Within the song bars must still pair up.
    const inside = {
      ...cut,
      grid: { ...cut.grid, bars: cut.grid.bars.map((bar, i) => (i === 3 ? { ...bar, beats: 2 } : bar)) },
    };
    expect(whyNotHalve(inside)).toEqual({ kind: 'uneven-bars', bar: 3 });
  });
});
