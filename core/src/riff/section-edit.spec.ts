import { describe, expect, it } from 'vitest';
import { type SongDocument, PLAIN_SECTION, PLAIN_RIFF, PLAIN_SONG } from './document';
import {
  addPasses,
  beginSection,
  joinWithNext,
  moveSection,
  orderOfPlay,
  renameSection,
  setSectionRiff,
  setSectionTranspose,
  confirmStart,
  splitSection,
  whyNotJoin,
} from './section-edit';

const bar = { beats: 4, unit: 4 } as const;
const SONG: SongDocument = {
  ...PLAIN_SONG,
  grid: { beatsS: [], bars: Array.from({ length: 20 }, (_, i) => ({ beat: 4 * i, ...bar })) },
  riffs: [
    { ...PLAIN_RIFF, id: 'a', letter: 'A', name: '', bars: [bar, bar], strums: [] },
    { ...PLAIN_RIFF, id: 'b', letter: 'B', name: '', bars: [bar, bar, bar, bar], strums: [] },
  ],
  sections: [
    { id: '1', name: 'Intro', riffId: 'a', startBar: 0, passes: 4, transpose: 0, ...PLAIN_SECTION },
    { id: '2', name: 'Verse', riffId: 'b', startBar: 10, passes: 2, transpose: 2, ...PLAIN_SECTION },
  ],
};

describe('sections', () => {
  it('are split at the nearest pass and joined again', () => {
    const split = splitSection(SONG, '1', 3, 'new');
    expect(split.sections.map((s) => [s.id, s.startBar, s.passes])).toEqual([
      ['1', 0, 2],
      ['new', 4, 2],
      ['2', 10, 2],
    ]);
    expect(joinWithNext(split, '1').sections[0]).toEqual(SONG.sections[0]);
    expect(splitSection(addPasses(SONG, '2', -1), '2', 11, 'x').sections).toHaveLength(2);
  });

  it('say why they do not join', () => {
    expect(whyNotJoin(SONG, '1')).toEqual({ kind: 'other-riff', section: 'Verse' });
    expect(whyNotJoin(SONG, '2')).toEqual({ kind: 'no-next-section' });
    expect(joinWithNext(SONG, '1')).toBe(SONG);
    const apart = setSectionTranspose(setSectionRiff(SONG, '2', 'a'), '2', 0);
    expect(whyNotJoin(apart, '1')).toEqual({ kind: 'bars-between', bars: 2 });
  });

  it('move and repeat as far as there is room', () => {
    expect(moveSection(SONG, '1', 9).sections[0].startBar).toBe(2);
    expect(moveSection(SONG, '2', -9).sections[1].startBar).toBe(8);
    expect(addPasses(SONG, '1', 9).sections[0].passes).toBe(5);
    expect(addPasses(SONG, '1', -9).sections[0].passes).toBe(1);
  });

  it('begin elsewhere with the same end, and the one before gives way', () => {
    const places = (document: SongDocument): number[][] =>
      document.sections.map((s) => [s.startBar, s.passes]);
    expect(places(beginSection(SONG, '2', 6))).toEqual([
      [0, 3],
      [6, 3],
    ]);
    expect(places(beginSection(SONG, '2', 11))).toEqual([
      [0, 4],
      [11, 2],
    ]);
    // Neither may lose its last pass.
    expect(beginSection(SONG, '2', 1)).toBe(SONG);
    expect(beginSection(SONG, '2', 18)).toBe(SONG);
    expect(beginSection(SONG, '1', -1)).toBe(SONG);
  });

  it('are confirmed by the user', () => {
    const confirmed = confirmStart(SONG, '1');
    expect(confirmed.sections.map((s) => s.startIsConfirmed)).toEqual([true, false]);
    expect(confirmStart(confirmed, '1')).toBe(confirmed);
  });

  it('take another riff in the same bars, another name, another height', () => {
    expect(setSectionRiff(SONG, '1', 'b').sections[0]).toMatchObject({ riffId: 'b', passes: 2 });
    expect(renameSection(SONG, '1', ' Turn ').sections[0].name).toBe('Turn');
    expect(renameSection(SONG, '1', '  ')).toBe(SONG);
    expect(orderOfPlay(setSectionTranspose(SONG, '1', -1))).toBe('Intro A−1×4, Verse B+2×2');
  });
});
