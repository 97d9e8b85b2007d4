import { describe, expect, it } from 'vitest';
import { bringRiffBack, changesBetween } from './changes';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  type SongDocument,
  type Strum,
} from './document';
import { removeStrums, rewriteStrums, setTrust } from './edit';
import { removeRiff } from './riff-edit';
import { settle } from './settled';
import { setTitle } from './song-edit';

const strum = (id: string, startTicks: number, fret: number): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 480,
  frets: [
    { string: 6, fret },
    { string: 5, fret: fret + 2 },
  ],
  trust: 'heard',
});
const SONG: SongDocument = {
  ...PLAIN_SONG,
  title: 'T',
  grid: { beatsS: [0, 1, 2, 3, 4], bars: [{ beat: 0, beats: 4, unit: 4 }] },
  riffs: [
    {
      ...PLAIN_RIFF,
      id: 'a',
      letter: 'A',
      name: 'Verse riff',
      bars: [{ beats: 4, unit: 4 }],
      strums: [strum('s', 0, 3), strum('t', 960, 5)],
    },
    { ...PLAIN_RIFF, id: 'b', letter: 'B', name: '', bars: [{ beats: 4, unit: 4 }], strums: [] },
  ],
  sections: [{ ...PLAIN_SECTION, id: '1', name: 'Verse', riffId: 'a', startBar: 0, passes: 1, transpose: 0 }],
};
/** As it comes back from where it was stored. */
const stored = (document: SongDocument): SongDocument => JSON.parse(JSON.stringify(document)) as SongDocument;

describe('what changed between two versions', () => {
  it('is nothing between a song and its copy', () => {
    expect(changesBetween(SONG, stored(SONG))).toEqual([]);
  });

  it('is told strum by strum, with what sounded and what sounds', () => {
    const frets = [{ string: 6, fret: 8 }];
    const changed = rewriteStrums(SONG, 'a', new Map([['t', { frets, palmMute: true }]]));
    expect(changesBetween(SONG, stored(changed))).toEqual([
      {
        kind: 'strum',
        riffId: 'a',
        guitar: 1,
        variation: '',
        ticks: 960,
        before: { midi: [45, 52], palmMute: false, dead: false },
        after: { midi: [48], palmMute: true, dead: false },
      },
    ]);
  });

  it.each<[string, SongDocument, object]>([
    [
      'a strum that is gone',
      removeStrums(SONG, 'a', new Set(['s'])),
      { kind: 'strum', ticks: 0, after: null },
    ],
    [
      'what is believed',
      setTrust(SONG, 'a', new Set(['s']), 'doubtful'),
      { kind: 'marks', riffId: 'a', ticks: 0 },
    ],
    ['a riff that is gone', removeRiff(SONG, 'b'), { kind: 'riff', riffId: 'b', what: 'removed' }],
    ['the title', setTitle(SONG, 'U', ''), { kind: 'part', part: 'title' }],
    [
      'what the ear has settled',
      settle(SONG, [{ sectionId: '1', pass: 0, ticks: 0, written: 'open 43 50' }], 'kept'),
      { kind: 'section', name: 'Verse', what: 'settled' },
    ],
  ])('names %s', (_, changed, expected) => {
    const changes = changesBetween(SONG, changed);
    expect(changes).toHaveLength(1);
    expect(changes[0]).toMatchObject(expected);
  });

  it('can be taken back for one riff alone', () => {
    const changed = setTitle(removeStrums(SONG, 'a', new Set(['s'])), 'U', '');
    const back = bringRiffBack(changed, SONG, 'a');
    expect(back.riffs[0]).toBe(SONG.riffs[0]);
    expect(back.title).toBe('U');
    expect(bringRiffBack(back, stored(SONG), 'a')).toBe(back);
    expect(bringRiffBack(removeRiff(SONG, 'b'), SONG, 'b').riffs.map((r) => r.id)).toEqual(['a', 'b']);
  });
});
