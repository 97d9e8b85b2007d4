import { describe, expect, it } from 'vitest';
import {
  type Riff,
  type SongDocument,
  type Strum,
  PLAIN_RIFF,
  PLAIN_SONG,
  PLAIN_STRUM,
  PLAIN_SECTION,
} from '../riff';
import { confirmedIn } from './confirmed';

const strum = (id: string, startTicks: number, trust: Strum['trust']): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 480,
  frets: [
    { string: 6, fret: 3 },
    { string: 5, fret: 5 },
  ],
  trust,
});
const riff = (...strums: Strum[]): Riff => ({
  id: 'r',
  ...PLAIN_RIFF,
  letter: 'A',
  name: 'Riff A',
  bars: [{ beats: 4, unit: 4 }],
  strums,
});
const documentWith = (only: Riff, transpose = 0): SongDocument => ({
  ...PLAIN_SONG,
  referenceOffsetCents: 7,
  grid: {
    beatsS: Array.from({ length: 9 }, (_, i) => 1 + i / 2),
    bars: [
      { beat: 0, beats: 4, unit: 4 },
      { beat: 4, beats: 4, unit: 4 },
    ],
  },
  riffs: [only],
  sections: [{ id: 's', name: 'S', riffId: 'r', startBar: 0, passes: 2, transpose, ...PLAIN_SECTION }],
});

describe('what a document has confirmed', () => {
  it('is its checked strums, in the first pass of their riff', () => {
    const confirmed = confirmedIn(documentWith(riff(strum('a', 0, 'checked'), strum('b', 1440, 'heard'))));
    expect(confirmed.referenceCents).toBe(7);
    expect(confirmed.strums).toEqual([{ timeS: 1, midi: [43, 50], palmMuted: false, dead: false }]);
    expect(confirmed.spans).toEqual([]);
  });

  it('is the whole pass when all of it is checked', () => {
    const { spans, strums } = confirmedIn(
      documentWith(riff(strum('a', 0, 'checked'), strum('b', 1440, 'checked'))),
    );
    expect(strums.map((s) => s.timeS)).toEqual([1, 1.75]);
    expect(spans).toHaveLength(1);
    expect(spans[0].endS - spans[0].startS).toBeCloseTo(2, 9);
  });

  it('sounds where the section moves it', () => {
    expect(confirmedIn(documentWith(riff(strum('a', 0, 'checked')), 2)).strums[0].midi).toEqual([45, 52]);
  });
});
