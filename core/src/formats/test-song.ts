/** Twelve bars of two seconds in two sections, for the tests of this folder. */
import { PLAIN_RIFF, PLAIN_SECTION, PLAIN_SONG, type RiffBar, type SongDocument } from '../riff';

const bar: RiffBar = { beats: 4, unit: 4 };

export const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'Low Tide',
  grid: {
    beatsS: Array.from({ length: 49 }, (_, i) => i / 2),
    bars: Array.from({ length: 12 }, (_, i) => ({ beat: 4 * i, ...bar })),
  },
  riffs: [{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'Riff A', bars: [bar, bar], strums: [] }],
  sections: [
    {
      ...PLAIN_SECTION,
      id: '1',
      name: 'Intro, "slow"',
      riffId: 'a',
      startBar: 0,
      passes: 2,
      transpose: 0,
    },
    { ...PLAIN_SECTION, id: '2', name: 'Verse', riffId: 'a', startBar: 4, passes: 4, transpose: 2 },
  ],
};
