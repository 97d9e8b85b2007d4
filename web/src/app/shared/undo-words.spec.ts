import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_STRUM, removeRiff, setFret, type SongDocument } from '@wild-needle/core/riff';
import { changeBetween } from './undo-words';

const bar = { beats: 4, unit: 4 } as const;
const DOCUMENT = {
  title: 'T',
  tuning: { name: 'standard', stringsMidi: [40, 45, 50, 55, 59, 64], capo: 0 },
  riffs: [
    {
      ...PLAIN_RIFF,
      id: 'r',
      letter: 'A',
      name: 'Verse riff',
      bars: [bar, bar],
      strums: [{ ...PLAIN_STRUM, id: 's', startTicks: 3840, durationTicks: 480, frets: [], trust: 'heard' }],
    },
    { ...PLAIN_RIFF, id: 'e', letter: 'B', name: '', bars: [bar], strums: [] },
  ],
  sections: [],
} as unknown as SongDocument;

describe('what an undo changed', () => {
  it('is told by riff and place, and can be gone to', () => {
    const after = setFret(DOCUMENT, 'r', 's', { string: 6, fret: 3 });
    expect(changeBetween(after, DOCUMENT)).toEqual({
      words: 'Verse riff, bar 2, beat 1',
      riffId: 'r',
      strumId: 's',
    });
  });

  it('tells riffs that come and go, and what is no riff', () => {
    const without = removeRiff(DOCUMENT, 'e');
    expect(changeBetween(DOCUMENT, without)?.words).toBe('riff B is gone');
    expect(changeBetween(without, DOCUMENT)?.words).toBe('riff B, is back');
    expect(changeBetween(DOCUMENT, { ...DOCUMENT, title: 'U' })?.words).toBe('title');
    expect(changeBetween(DOCUMENT, DOCUMENT)).toBeNull();
  });
});
