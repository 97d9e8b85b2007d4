import { describe, expect, it } from 'vitest';
import { PLAIN_SONG, type SongDocument } from './document';
import { changeReference, retimed } from './retime';

const SONG: SongDocument = {
  ...PLAIN_SONG,
  recordings: [{ id: 'album', isReference: true }],
  grid: { beatsS: [0.5, 1, 1.5, 2], bars: [{ beat: 0, beats: 4, unit: 4 }] },
  loops: [{ id: 'l', name: 'Turn', startS: 1, endS: 2 }],
};
const later = (t: number): number => 2 * t + 3;

describe('another time', () => {
  it('moves beats and loops, and nothing else', () => {
    const moved = retimed(SONG, later);
    expect(moved.grid).toEqual({ ...SONG.grid, beatsS: [4, 5, 6, 7] });
    expect(moved.loops).toEqual([{ id: 'l', name: 'Turn', startS: 5, endS: 7 }]);
    expect({ ...moved, grid: SONG.grid, loops: SONG.loops }).toEqual(SONG);
  });

  it('is kept with the reference, and the way back brings the old one', () => {
    const live = changeReference(SONG, 'live', later);
    expect(live.recordings).toEqual([{ id: 'live', isReference: true }]);
    expect(changeReference(live, 'live', later)).toBe(live);
    expect(changeReference(live, 'album', (t) => (t - 3) / 2)).toEqual(SONG);
  });

  it('has no beat before the recording begins, and its beats ascend', () => {
    const { beatsS } = changeReference(SONG, 'live', (t) => t - 1.2).grid;
    expect(beatsS[0]).toBe(0);
    beatsS.slice(1).forEach((t, n) => expect(t).toBeGreaterThan(beatsS[n]));
    expect(beatsS.slice(-1)[0]).toBeCloseTo(0.8);
  });
});
