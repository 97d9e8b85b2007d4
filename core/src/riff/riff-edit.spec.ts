import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING, type Tuning } from '../guitar';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  type Riff,
  type SongDocument,
  type Strum,
} from './document';
import { addSecondGuitar, changeAsGuitar, giveToOther, removeSecondGuitar, swapGuitars } from './guitars';
import { layerOf } from './layers';
import {
  addBars,
  addRiff,
  barOf,
  beatInBar,
  mergeRiffs,
  nextLetter,
  removeRiff,
  setBarNote,
  setGroup,
  splitRiff,
  doubleRiff,
  whyNotMerge,
  whyNotDouble,
} from './riff-edit';
import { joinWithNext, splitSection, addPasses } from './section-edit';
import { setFret } from './edit';
import { strumNotes } from './strum';

const bar = { beats: 4, unit: 4 } as const;
const strum = (id: string, startTicks: number, fret = 3): Strum => ({
  ...PLAIN_STRUM,
  id,
  startTicks,
  durationTicks: 960,
  frets: [{ string: 6, fret }],
  trust: 'checked',
});
const riff = (id: string, letter: string, bars: number, ...strums: Strum[]): Riff => ({
  ...PLAIN_RIFF,
  id,
  letter,
  name: `Riff ${letter}`,
  bars: Array(bars).fill(bar) as Riff['bars'],
  strums,
});
const section = (
  id: string,
  riffId: string,
  startBar: number,
  passes: number,
): SongDocument['sections'][number] => ({
  ...PLAIN_SECTION,
  id,
  name: id,
  riffId,
  startBar,
  passes,
  transpose: 0,
});
const SONG: SongDocument = {
  ...PLAIN_SONG,
  tuning: STANDARD_TUNING,
  guitar2: null,
  grid: { beatsS: [], bars: Array.from({ length: 16 }, (_, i) => ({ beat: 4 * i, ...bar })) },
  riffs: [riff('a', 'A', 2, strum('1', 0), strum('2', 3840, 5)), riff('b', 'B', 2, strum('3', 0))],
  sections: [section('intro', 'a', 0, 4), section('verse', 'b', 8, 2), section('outro', 'a', 12, 2)],
};
const ids = (): (() => string) => {
  let n = 0;
  return () => `new-${n++}`;
};

describe('riffs', () => {
  it('are new with the next free letter', () => {
    const more = addRiff(SONG, 'c', 2);
    expect(more.riffs[2]).toMatchObject({ letter: 'C', bars: [bar, bar], strums: [] });
    expect(removeRiff(more, 'c')).toEqual(SONG);
    expect(removeRiff(more, 'a')).toBe(more);
    const all = Array.from({ length: 27 }, (_, i) =>
      riff(
        String(i),
        nextLetter(Array.from({ length: i }, (_2, k) => riff('x', String.fromCharCode(65 + k), 1))),
        1,
      ),
    );
    expect(nextLetter(all)).toBe('AB');
  });

  it('grow and shrink by a bar; sections play them as often as they fit', () => {
    const longer = addBars(SONG, 'a', 1);
    expect(longer.riffs[0].bars).toHaveLength(3);
    expect(longer.sections.map((s) => [s.passes, s.cutBars])).toEqual([
      [3, 1],
      [2, 0],
      [2, 2],
    ]);
    const shorter = addBars(SONG, 'a', -1);
    expect(shorter.riffs[0].strums.map((s) => s.id)).toEqual(['1']);
    expect(shorter.sections[0].passes).toBe(8);
    expect(addBars(shorter, 'a', -1)).toBe(shorter);
  });

  it('are written over two passes', () => {
    const twice = doubleRiff(SONG, 'a', ids());
    expect(twice.riffs[0].strums.map((s) => s.startTicks)).toEqual([0, 3840, 7680, 11520]);
    expect(twice.sections.map((s) => s.passes)).toEqual([2, 2, 1]);
    expect(whyNotDouble(addPasses(SONG, 'intro', -1), 'a')).toMatchObject({ kind: 'odd-passes', passes: 3 });
  });

  it('become two for a section that plays it its own way, and one again', () => {
    const apart = splitRiff(SONG, 'outro', ids());
    expect(apart.riffs.map((r) => r.letter)).toEqual(['A', 'B', 'C']);
    expect(apart.sections[2].riffId).toBe(apart.riffs[2].id);
    expect(apart.riffs[2].strums[0].id).not.toBe('1');
    expect(splitRiff(SONG, 'verse', ids())).toBe(SONG);
    expect(mergeRiffs(apart, apart.riffs[2].id, 'a')).toEqual(SONG);
    expect(whyNotMerge(addBars(SONG, 'a', 1), 'a', 'b')).toEqual({
      kind: 'unequal-riffs',
      letters: ['A', 'B'],
    });
  });

  it('carry remarks on bars and named groups of bars', () => {
    const noted = setBarNote(SONG, 'a', 1, ' turn? ', true);
    expect(noted.riffs[0].barNotes).toEqual([{ bar: 1, text: 'turn?', todo: true }]);
    expect(setBarNote(noted, 'a', 1, '', true).riffs[0].barNotes).toEqual([]);
    const grouped = setGroup(setGroup(SONG, 'a', 0, 2, 'all'), 'a', 1, 1, 'turn');
    expect(grouped.riffs[0].groups).toEqual([{ name: 'turn', startBar: 1, bars: 1 }]);
    expect([barOf(SONG.riffs[0], 4000), beatInBar(SONG.riffs[0], 4320)]).toEqual([1, 0.5]);
  });
});

describe('decisions about passes', () => {
  const decided: SongDocument = {
    ...SONG,
    sections: SONG.sections.map((s) =>
      s.id === 'intro' ? { ...s, answers: [{ pass: 3, variationId: null }] } : s,
    ),
  };

  it('go with their pass when a section is split and joined, and away with it', () => {
    const split = splitSection(decided, 'intro', 4, 'second');
    expect(split.sections.slice(0, 2).map((s) => s.answers)).toEqual([[], [{ pass: 1, variationId: null }]]);
    expect(joinWithNext(split, 'intro').sections[0].answers).toEqual([{ pass: 3, variationId: null }]);
    expect(addPasses(decided, 'intro', -1).sections[0].answers).toEqual([]);
  });
});

describe('two guitars', () => {
  const two = addSecondGuitar(SONG);
  const dropped: Tuning = { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 };

  it('are exchanged and exchanged back', () => {
    expect(swapGuitars(swapGuitars(two))).toEqual(two);
    expect(swapGuitars(SONG)).toBe(SONG);
    expect(removeSecondGuitar(two)).toEqual(SONG);
  });

  it('share the riff: a strum given away is played by the other', () => {
    const given = giveToOther(two, 'a', new Set(['2']));
    expect(given.riffs[0].strums.map((s) => s.id)).toEqual(['1']);
    expect(given.riffs[0].guitar2.map((s) => [s.id, s.trust])).toEqual([['2', 'checked']]);
    const back = swapGuitars(giveToOther(swapGuitars(given), 'a', new Set(['2'])));
    expect(back).toEqual(two);
  });

  it('keep a tuning each', () => {
    const given = giveToOther(two, 'a', new Set(['2']));
    const retuned = changeAsGuitar(given, 2, (d) => ({ ...d, tuning: dropped }));
    expect([retuned.tuning.name, retuned.guitar2?.name]).toEqual(['standard', 'drop-d']);
    // As it sounds, in the frets of the other tuning.
    const again = giveToOther(retuned, 'a', new Set(['1']));
    const given1 = again.riffs[0].guitar2[0];
    expect(strumNotes(given1, dropped)).toEqual(strumNotes(two.riffs[0].strums[0], two.tuning));
  });

  it('are written apart', () => {
    const given = giveToOther(two, 'a', new Set(['2']));
    const edited = changeAsGuitar(given, 2, (d) => setFret(d, 'a', '2', { string: 6, fret: 7 }));
    expect(edited.riffs[0].guitar2[0].frets).toEqual([{ string: 6, fret: 7 }]);
    expect(changeAsGuitar(given, 2, (d) => d)).toBe(given);
  });
});

describe('layers', () => {
  const written = riff(
    'x',
    'X',
    1,
    strum('1', 0),
    { ...strum('2', 960), palmMute: true },
    { ...strum('3', 1920), dead: true },
    strum('4', 2880, 5),
  );

  it.each([
    ['chords', ['1', '4']],
    ['strokes', ['1', '2', '4']],
    ['all', ['1', '2', '3', '4']],
  ] as const)('show %s', (layer, shown) => {
    const { strums } = layerOf(written, layer, STANDARD_TUNING);
    expect(strums.map((s) => s.id)).toEqual(shown);
    if (layer === 'chords') expect(strums[0].durationTicks).toBe(2880);
    if (layer === 'strokes') expect(strums.some((s) => s.palmMute)).toBe(false);
  });
});
