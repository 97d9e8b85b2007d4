import { describe, expect, it } from 'vitest';
import { type SongDocument, PLAIN_SECTION, PLAIN_RIFF, PLAIN_SONG } from './document';
import {
  addPasses,
  beginPart,
  beginSection,
  joinWithNext,
  lengthenSection,
  moveSection,
  orderOfPlay,
  removeSection,
  renameSection,
  setSectionKey,
  setSectionRiff,
  setSectionTranspose,
  confirmStart,
  splitSection,
  whyNotBegin,
  whyNotJoin,
  whyNotSplit,
} from './section-edit';
import { endBarOf } from './section-span';

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
  it('are split at any bar, where the riff goes on, and joined again', () => {
    const split = splitSection(SONG, '1', 3, 'new');
    expect(split.sections.map((s) => [s.id, s.startBar, s.passes, s.skipBars, s.cutBars])).toEqual([
      ['1', 0, 2, 0, 1],
      ['new', 3, 3, 1, 0],
      ['2', 10, 2, 0, 0],
    ]);
    expect(joinWithNext(split, '1').sections[0]).toEqual(SONG.sections[0]);
    expect(orderOfPlay(split)).toBe('Intro A 3 bars, Intro, second part A 5 bars, Verse B+2×2');
    expect(splitSection(addPasses(SONG, '2', -1), '2', 11, 'x').sections).toHaveLength(3);
    expect(whyNotSplit(SONG, '1', 0)).toEqual({ kind: 'not-inside', section: 'Intro' });
    expect(splitSection(SONG, '1', 8, 'x')).toBe(SONG);
  });

  it('keep what was decided of their passes over a cut and a join', () => {
    const answers = [0, 1, 3].map((pass) => ({ pass, variationId: null }));
    const decided = { ...SONG, sections: [{ ...SONG.sections[0], answers }, SONG.sections[1]] };
    const split = splitSection(decided, '1', 4, 'new');
    expect(split.sections.map((s) => s.answers.map((a) => a.pass))).toEqual([[0, 1], [1], []]);
    expect(joinWithNext(split, '1').sections[0]).toEqual(decided.sections[0]);
    // A pass that is cut is decided in both of its parts.
    const cut = splitSection(decided, '1', 3, 'new');
    expect(cut.sections.map((s) => s.answers.map((a) => a.pass))).toEqual([[0, 1], [0, 2], []]);
    expect(joinWithNext(cut, '1').sections[0]).toEqual(decided.sections[0]);
  });

  it('are lengthened bar by bar, up to their neighbours', () => {
    expect(lengthenSection(SONG, '1', 1).sections[0]).toMatchObject({ passes: 5, cutBars: 1 });
    expect(lengthenSection(SONG, '1', 9).sections[0]).toMatchObject({ passes: 5, cutBars: 0 });
    expect(lengthenSection(SONG, '1', -99).sections[0]).toMatchObject({ passes: 1, cutBars: 1 });
    expect(lengthenSection(lengthenSection(SONG, '1', -3), '1', 3)).toEqual(SONG);
  });

  it('are made from nothing: each ends where the next one begins', () => {
    const bare: SongDocument = { ...SONG, riffs: [], sections: [] };
    const first = beginPart(bare, 2, { sectionId: 'x', riffId: 'rx' });
    const both = beginPart(first, 9, { sectionId: 'y', riffId: 'ry' });
    expect(both.sections.map((s) => [s.name, s.riffId, s.startBar, endBarOf(both, s)])).toEqual([
      ['Part 1', 'rx', 2, 9],
      ['Part 2', 'ry', 9, 20],
    ]);
    expect(both.riffs.map((r) => [r.letter, r.bars.length])).toEqual([
      ['A', 4],
      ['B', 4],
    ]);
    expect(whyNotBegin(both, 9)).toEqual({ kind: 'begins-already', section: 'Part 2' });
    expect(whyNotBegin({ ...bare, grid: { beatsS: [], bars: [] } }, 0)).toEqual({ kind: 'no-beats' });
    // Before what is there already it takes the bars that are free.
    const before = beginPart(first, 0, { sectionId: 'z', riffId: 'rz' });
    expect(before.sections.map((s) => [s.id, s.startBar, endBarOf(before, s)])).toEqual([
      ['z', 0, 2],
      ['x', 2, 20],
    ]);
  });

  it('stand without a riff, and are taken away; riffs stay', () => {
    const talk = setSectionRiff(SONG, '2', null);
    expect([endBarOf(talk, talk.sections[1]), talk.riffs]).toEqual([18, SONG.riffs]);
    expect(orderOfPlay(talk)).toBe('Intro A×4, Verse');
    expect(setSectionRiff(talk, '2', 'b').sections[1]).toEqual(SONG.sections[1]);
    expect(removeSection(SONG, '1')).toEqual({ ...SONG, sections: [SONG.sections[1]] });
    expect(removeSection(SONG, 'gone')).toBe(SONG);
  });

  it('have a key of their own where the player says so', () => {
    const keyed = setSectionKey(SONG, '2', { tonic: 'D', mode: 'minor' });
    expect(keyed.sections[1].key).toEqual({ tonic: 'D', mode: 'minor' });
    expect(setSectionKey(keyed, '2', { tonic: 'D', mode: 'minor' })).toBe(keyed);
    expect(setSectionKey(keyed, '2', null)).toEqual(SONG);
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
    expect(beginSection(SONG, '2', 11).sections[1].cutBars).toBe(1);
    // Neither may lose its last bar.
    expect(beginSection(SONG, '2', 0)).toBe(SONG);
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
