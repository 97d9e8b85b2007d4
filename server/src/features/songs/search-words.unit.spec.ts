import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from '@wild-needle/core/riff';
import { patternsOf, searchWords } from './search-words';

const fifth = (id: string, fret: number, note = ''): SongDocument['riffs'][number]['strums'][number] => ({
  ...PLAIN_STRUM,
  ...{ id, startTicks: 0, durationTicks: 240, trust: 'heard', note },
  frets: [
    { string: 6, fret },
    { string: 5, fret: fret + 2 },
  ],
});
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'Late Bus, Home',
  artist: 'Low Tide Clerks',
  riffs: [
    {
      ...PLAIN_RIFF,
      ...{ id: 'a', letter: 'A', name: 'Chug', bars: [{ beats: 4, unit: 4 }] },
      strums: [fifth('1', 5), fifth('2', 5, 'lazy pick'), fifth('3', 8), fifth('4', 10)],
    },
  ],
};
/** As LIKE has it. */
const has = (words: string, pattern: string): boolean =>
  words.includes(pattern.slice(1, -1).replace(/\\(.)/g, '$1'));
const finds = (search: string): boolean =>
  patternsOf(search).every((pattern) => has(searchWords(SONG, ['set list', '100%']), pattern));

describe('a song', () => {
  it.each([
    'late',
    'BUS home',
    'clerks',
    'set',
    '100%',
    'lazy pick',
    'chug',
    'standard',
    'A5 C5 D5',
    'a5 c5',
    '',
  ])('is found by %o', (search) => expect(finds(search)).toBe(true));
  it.each(['drop c', 'C5 A5', 'A5 D5', 'x%y', 'us_h'])('is not found by %o', (search) =>
    expect(finds(search)).toBe(false),
  );
});
