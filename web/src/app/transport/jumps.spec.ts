import { describe, expect, it } from 'vitest';
import { PLAIN_SECTION, PLAIN_SONG, type SongDocument } from '@wild-needle/core/riff';
import { jumpTarget } from './jumps';

const SONG: SongDocument = {
  ...PLAIN_SONG,
  grid: {
    beatsS: Array.from({ length: 17 }, (_, i) => 1 + i / 2),
    bars: [0, 4, 8, 12].map((beat) => ({ beat, beats: 4, unit: 4 as const })),
  },
  sections: [0, 2].map((startBar) => ({
    ...PLAIN_SECTION,
    id: String(startBar),
    name: '',
    riffId: null,
    startBar,
    passes: 2,
    transpose: 0,
  })),
};

describe('a jump', () => {
  it.each([
    [3.2, 'beat', 1, false, 3.5],
    [3.5, 'beat', 1, false, 4],
    [3.5, 'beat', -1, false, 3],
    [3.6, 'bar', 1, false, 5],
    [3.6, 'bar', -1, false, 3],
    // Playing, the bar that has just begun is not meant.
    [3.2, 'bar', -1, true, 1],
    [3.2, 'section', 1, false, 5],
    [5.2, 'section', -1, false, 5],
    [5.2, 'section', -1, true, 1],
    [3.2, 'seconds', -1, false, -1.8],
    [8.9, 'section', 1, false, null],
  ] as const)('from %f by a %s (%i, playing %s) goes to %o', (nowS, unit, by, isPlaying, target) => {
    expect(jumpTarget(SONG, nowS, unit, by, isPlaying)).toEqual(
      target === null ? null : expect.closeTo(target, 6),
    );
  });
});
