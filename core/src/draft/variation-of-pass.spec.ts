import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../guitar';
import {
  isEnding,
  keepVariation,
  PLAIN_SECTION,
  PLAIN_SONG,
  passesOf,
  removeVariation,
  reopenPass,
  riffOfPass,
  sameRiff,
  variationOf,
  whereVaried,
  type Riff,
  type Section,
  type SongDocument,
} from '../riff';
import { comparePass } from './compare';
import type { HeardStroke } from './place';
import { RIFF, withAt, without } from './test-riff';
import { variationOfPass } from './variation-of-pass';

const SONG: SongDocument = {
  ...PLAIN_SONG,
  grid: {
    beatsS: Array.from({ length: 33 }, (_, i) => i / 2),
    bars: Array.from({ length: 8 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 })),
  },
  riffs: [RIFF],
  sections: [{ ...PLAIN_SECTION, id: 's', name: 'Verse', riffId: 'r', startBar: 0, passes: 4, transpose: 0 }],
};

function kept(heard: HeardStroke[], pass = 3, document = SONG): SongDocument {
  const comparison = comparePass(RIFF, heard, STANDARD_TUNING);
  let n = 0;
  const variation = variationOfPass(RIFF, heard, comparison.differences, STANDARD_TUNING, {
    id: `v${pass}`,
    name: 'Early end',
    newId: () => `v${pass}-${n++}`,
  });
  return variation ? keepVariation(document, 's', pass, variation) : document;
}

/** What a pass of the section plays. */
const played = (riff: Riff, section: Section, pass: number): Riff =>
  riffOfPass(riff, section, passesOf(section, riff, SONG.grid)[pass]);

describe('a variation', () => {
  it('holds the bars that differ, and is played in its pass only', () => {
    const song = kept(without(4, 5));
    const [section] = song.sections;
    const [riff] = song.riffs;
    expect(riff.variations[0]).toMatchObject({ fromTicks: 3840, toTicks: 7680, strums: [] });
    expect(isEnding(riff, riff.variations[0])).toBe(true);
    expect(played(riff, section, 3).strums.map((s) => s.id)).toEqual(['a', 'b', 'c', 'd']);
    expect(played(riff, section, 0)).toBe(riff);
    expect(whereVaried(song, riff, riff.variations[0])).toBe('pass 4 of Verse');
  });

  it('plays the chord that was heard, in a shape that the tuning has, and keeps the rest as written', () => {
    const song = kept(withAt(3, { midi: [48, 55], palmMuted: true }));
    const varied = played(song.riffs[0], song.sections[0], 3).strums;
    expect(varied.map((s) => s.startTicks)).toEqual(RIFF.strums.map((s) => s.startTicks));
    expect(varied[3]).toMatchObject({ palmMute: true, trust: 'heard' });
    expect(varied[3].frets).not.toEqual(RIFF.strums[3].frets);
    expect(varied[1].palmMute).toBe(true);
    const high = kept(withAt(3, { midi: [84] }));
    expect(played(high.riffs[0], high.sections[0], 3).strums[3].frets).toEqual([{ string: 1, fret: 20 }]);
  });

  it('that another pass has already is used again', () => {
    const twice = kept(without(4, 5), 1, kept(without(4, 5)));
    expect(twice.riffs[0].variations).toHaveLength(1);
    expect(whereVaried(twice, twice.riffs[0], twice.riffs[0].variations[0])).toBe('passes 2 and 4 of Verse');
  });

  it('follows the riff where they are the same', () => {
    const song = kept(without(4, 5));
    const edited = { ...song.riffs[0], strums: song.riffs[0].strums.filter((s) => s.id !== 'b') };
    expect(played(edited, song.sections[0], 3).strums.map((s) => s.id)).toEqual(['a', 'c', 'd']);
  });

  it('is taken back, forgotten, or declared to be the riff', () => {
    const song = kept(without(4, 5));
    expect(reopenPass(song, 's', 3).sections[0].answers).toEqual([]);
    const forgotten = removeVariation(song, 'r', 'v3');
    expect([forgotten.riffs[0].variations, forgotten.sections[0].answers]).toEqual([[], []]);
    const same = sameRiff(song, 's', 3);
    expect(same.sections[0].answers).toEqual([{ pass: 3, variationId: null }]);
    expect(variationOf(same.riffs[0], same.sections[0], 3)).toBeNull();
  });
});
