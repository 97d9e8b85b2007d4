import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_SONG, type SongChange, type SongDocument } from '@wild-needle/core/riff';
import { changeWords } from './change-words';

const bar = { beats: 4, unit: 4 } as const;
const SONG: SongDocument = {
  ...PLAIN_SONG,
  riffs: [{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'Verse riff', bars: [bar, bar], strums: [] }],
};
const strum = (midi: readonly number[], palmMute = false) => ({ midi, palmMute, dead: false });
const at = { kind: 'strum', riffId: 'a', guitar: 1, variation: '', ticks: 5760 } as const;

describe('what changed, in words', () => {
  it.each<[SongChange, string]>([
    [
      { ...at, before: strum([45, 52]), after: strum([45, 50, 57]) },
      'Verse riff: bar 2, beat 3 from A5 to D5/A',
    ],
    [{ ...at, before: null, after: strum([40, 47], true) }, 'Verse riff: bar 2, beat 3 E5 muted written'],
    [
      { ...at, variation: 'Ending 2', before: strum([45, 52]), after: null },
      'Verse riff, Ending 2: bar 2, beat 3 A5 taken out',
    ],
    [{ kind: 'riff', riffId: 'gone', what: 'removed' }, 'A riff that is gone: taken away'],
    [{ kind: 'section', name: 'Verse 1', what: 'settled' }, 'Section Verse 1: checked by ear'],
    [{ kind: 'part', part: 'beats' }, 'Beats and bars: changed'],
  ])('%#', (change, words) => {
    expect(changeWords(change, [SONG], null)).toBe(words);
  });
});
