import { describe, expect, it } from 'vitest';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  type Riff,
  type Section,
  type SongDocument,
} from '../riff';
import { withEnding } from './endings';

const strum = (id: string, startTicks: number): Riff['strums'][number] => ({
  ...PLAIN_STRUM,
  ...{ id, startTicks, durationTicks: 960, frets: [{ string: 6, fret: 3 }], trust: 'heard' },
});
const RIFF: Riff = {
  ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'A' },
  bars: [
    { beats: 4, unit: 4 },
    { beats: 3, unit: 4 },
  ],
  strums: [strum('one', 0), strum('own', 3840)],
  variations: [
    { id: 'v', name: 'Ending', fromTicks: 3840, toTicks: 6720, strums: [strum('other', 4800)], guitar2: [] },
  ],
};
const section = (id: string, passes: number, varied: readonly number[]): Section => ({
  ...{ ...PLAIN_SECTION, id, name: id, riffId: 'a', startBar: 0, passes, transpose: 0 },
  answers: varied.map((pass) => ({ pass, variationId: 'v' })),
});
const song = (...sections: readonly Section[]): SongDocument => ({ ...PLAIN_SONG, riffs: [RIFF], sections });

describe('endings', () => {
  it('stand in brackets behind what the other passes play, with the bars of both', () => {
    const ended = withEnding(song(section('Verse', 4, [3])), RIFF)!;
    expect(ended.brackets).toEqual([
      { fromBar: 1, toBar: 2, label: '1. 2. 3.' },
      { fromBar: 2, toBar: 3, label: '4.' },
    ]);
    expect(ended.repeatEndBar).toBe(2);
    expect(ended.riff.bars.map((b) => b.beats)).toEqual([4, 3, 3]);
    expect(ended.riff.strums.map((s) => [s.id, s.startTicks])).toEqual([
      ['one', 0],
      ['own', 3840],
      ['other', 7680],
    ]);
  });

  it('are told as the last time where sections differ in length', () => {
    const ended = withEnding(song(section('Verse', 4, [3]), section('Outro', 6, [5])), RIFF)!;
    expect(ended.brackets.map((b) => b.label)).toEqual(['before', 'last time']);
  });

  it.each([
    ['is never played', song(section('Verse', 4, [])), RIFF],
    ['is played here and there', song(section('Verse', 4, [1]), section('Outro', 6, [2])), RIFF],
    [
      'begins within a bar',
      song(section('Verse', 2, [1])),
      { ...RIFF, variations: [{ ...RIFF.variations[0], fromTicks: 4800 }] },
    ],
    [
      'is all of the riff',
      song(section('Verse', 2, [1])),
      { ...RIFF, variations: [{ ...RIFF.variations[0], fromTicks: 0 }] },
    ],
    [
      'is one of several',
      song(section('Verse', 2, [1])),
      { ...RIFF, variations: [RIFF.variations[0], { ...RIFF.variations[0], id: 'w' }] },
    ],
  ])('stand below the riff where one %s', (_, document, riff) => {
    expect(withEnding({ ...document, riffs: [riff] }, riff)).toBeNull();
  });
});
