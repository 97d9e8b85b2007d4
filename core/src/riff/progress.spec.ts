import { describe, expect, it } from 'vitest';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  type Section,
  type SongDocument,
  type Strum,
} from './document';
import { progressOf } from './progress';
import { signatureOf } from './settled';

const BAR = 3840;
const strum = (id: string, startTicks: number, trust: Strum['trust']): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 960,
  frets: [{ string: 6, fret: 3 }],
  trust,
});
/** Two bars, a strum in each, played twice; then a part whose riff is empty. */
function song(
  trusts: readonly [Strum['trust'], Strum['trust']],
  sections: readonly Partial<Section>[] = [{}, {}],
): SongDocument {
  const meter = { beats: 4, unit: 4 } as const;
  return {
    ...PLAIN_SONG,
    title: 'Gravel Choir',
    grid: {
      beatsS: Array.from({ length: 33 }, (_, n) => n / 2),
      bars: Array.from({ length: 8 }, (_, n) => ({ beat: 4 * n, ...meter })),
    },
    riffs: [
      {
        ...PLAIN_RIFF,
        id: 'a',
        letter: 'A',
        name: '',
        bars: [meter, meter],
        strums: [strum('one', 0, trusts[0]), strum('two', BAR, trusts[1])],
      },
      { ...PLAIN_RIFF, id: 'b', letter: 'B', name: '', bars: [meter], strums: [] },
    ],
    sections: [
      {
        ...PLAIN_SECTION,
        id: '1',
        name: 'Part 1',
        riffId: 'a',
        startBar: 0,
        passes: 2,
        transpose: 0,
        ...sections[0],
      },
      {
        ...PLAIN_SECTION,
        id: '2',
        name: 'Bridge',
        riffId: 'b',
        startBar: 4,
        passes: 4,
        transpose: 0,
        ...sections[1],
      },
    ],
  };
}

describe('how far a song is', () => {
  it('begins at nothing', () => {
    expect(progressOf(PLAIN_SONG)).toMatchObject({ tuning: 0, sections: 0, riffs: 0, check: 0, bars: [] });
  });

  it('is half a tuning, named sections, and what is not written, after a draft', () => {
    expect(progressOf(song(['heard', 'heard']))).toMatchObject({
      ...{ tuning: 0.5, sections: 0.5, riffs: 0.5, check: 0 },
      ...{ namedSections: 1, unwritten: 'Bridge', toSettle: 4 },
    });
  });

  it('counts a section whose start was confirmed as named', () => {
    expect(progressOf(song(['heard', 'heard'], [{ startIsConfirmed: true }, {}])).sections).toBe(1);
  });

  it('counts bars in which every strum was checked, pass by pass', () => {
    expect(progressOf(song(['checked', 'heard']))).toMatchObject({
      ...{ tuning: 1, check: 0.5, toSettle: 2 },
      bars: [
        { name: 'Part 1', bars: 4, checkedBars: 2 },
        { name: 'Bridge', bars: 4, checkedBars: 0 },
      ],
    });
  });

  it('takes what the ear has settled in one pass', () => {
    const document = song(['checked', 'heard']);
    const written = signatureOf(document.riffs[0].strums[1], document.tuning);
    const settled = [{ pass: 1, guitar: 1, ticks: BAR, written, answer: 'kept' } as const];
    const [first, second] = document.sections;
    const after = { ...document, sections: [{ ...first, settled }, second] };
    expect(progressOf(after)).toMatchObject({ toSettle: 1, check: 0.75 });
    expect(progressOf(after).bars[0].checkedBars).toBe(3);
  });
});
