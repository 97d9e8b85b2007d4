import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../guitar';
import type { Riff, SongDocument, Strum } from '../../riff';
import type { Brought } from '../brought';
import { madeUpSong, oneMarkEach, playedText } from '../test-songs';
import { readTextTab } from './read';
import { writeTextTab } from './write';

const read = (text: string): Brought => readTextTab(text, { tuning: STANDARD_TUNING });
const only = (text: string): Riff => read(text).document.riffs[0];
/** 'tick:fret fret', lowest string first. */
const inShort = ({ strums }: Riff): string[] =>
  strums.map(
    (s) => `${s.startTicks}:${s.dead ? 'x' : s.frets.map((f) => `${f.string}/${f.fret}`).join(' ')}`,
  );

/** What a text tab does not say: how long it sounds, and a direction that the grid says anyway. */
function sayable(strum: Strum): Strum {
  return { ...strum, durationTicks: Infinity, marks: { ...strum.marks, stroke: null } };
}

/** A second reader, deliberately simple: the digits of a tab without any sign, by their columns. */
function digitsOf(text: string): string[] {
  const found: string[] = [];
  let strings: string[] = [];
  const flush = (): void => {
    const columns = new Map<number, string[]>();
    strings.forEach((line, s) => {
      for (const m of line.matchAll(/\d+/g)) {
        columns.set(m.index, [...(columns.get(m.index) ?? []), `${s + 1}/${m[0]}`]);
      }
    });
    found.push(...[...columns].sort(([a], [b]) => a - b).map(([, places]) => places.reverse().join(' ')));
    strings = [];
  };
  for (const line of text.split('\n')) {
    if (/^[A-G][#b]?\s?\|/.test(line)) strings.push(line);
    else flush();
  }
  return found;
}

describe('a text tab that this program wrote', () => {
  it('comes back: strings, frets, places, repeats, variations, moved passes and every mark', () => {
    fc.assert(
      fc.property(madeUpSong.map(oneMarkEach), (song: SongDocument) => {
        fc.pre(song.riffs.some((r) => r.strums.some((s) => !s.rest)));
        const { document } = read(writeTextTab(song));
        const names = song.sections.map((s) => s.name);
        const back = { ...document, sections: document.sections.filter((s) => names.includes(s.name)) };
        expect(playedText(back, sayable)).toEqual(playedText(song, sayable));
        expect([document.title, document.artist, document.tuning]).toEqual([
          song.title,
          song.artist,
          song.tuning,
        ]);
      }),
      { numRuns: 50 },
    );
  });

  it('says the same to a reader that knows nothing but digits', () => {
    const plain = madeUpSong.map(oneMarkEach).map((song) => ({
      ...song,
      sections: [],
      guitar2: null,
      riffs: song.riffs.slice(0, 1).map((r) => ({
        ...r,
        variations: [],
        strums: r.strums
          .filter((s) => !s.dead && !s.rest)
          .map((s) => ({ ...s, marks: { ...s.marks, bendCents: 0 }, note: '' })),
      })),
    }));
    fc.assert(
      fc.property(plain, (song) => {
        fc.pre(song.riffs[0].strums.length > 0);
        const text = writeTextTab(song);
        expect(inShort(only(text)).map((s) => s.replace(/^\d+:/, ''))).toEqual(digitsOf(text));
      }),
      { numRuns: 60 },
    );
  });
});

describe('a text tab written by hand', () => {
  it('is read by the width of its bars where nothing is counted', () => {
    const riff = only(
      [
        'e|----------------|',
        'B|----------------|',
        'G|----------------|',
        'D|2-----5---------|',
        'A|2-2-2-5---3-----|',
        'E|0-0-0-3---1-0---|',
      ].join('\n'),
    );
    expect(inShort(riff)).toEqual([
      '0:6/0 5/2 4/2',
      '480:6/0 5/2',
      '960:6/0 5/2',
      '1440:6/3 5/5 4/5',
      '2400:6/1 5/3',
      '2880:6/0',
    ]);
  });

  it('knows its tuning by the names of its strings, by words, and by what the song has', () => {
    const tab = (names: string): string =>
      names
        .split(' ')
        .map((n) => `${n}|--0--|`)
        .join('\n');
    expect(read(tab('e B G D A D')).document.tuning).toMatchObject({ name: 'drop-d', capo: 0 });
    expect(read(tab('D# A# F# C# G# D#')).document.tuning.stringsMidi[0]).toBe(39);
    expect(read(tab('G D A E')).document.tuning.stringsMidi).toEqual([40, 45, 50, 55]);
    expect(read(tab('e B G D A E B')).document.tuning.stringsMidi[0]).toBe(35);
    const words = `Tuning: C G C F A D\ncapo on fret 2\n\n${Array(6).fill('|--0--|').join('\n')}`;
    expect(read(words).document.tuning).toMatchObject({ stringsMidi: [36, 43, 48, 53, 57, 62], capo: 2 });
  });

  it('takes palm mutes, dead strokes, hammers, slides, bends, ties and vibrato', () => {
    const { strums } = only(
      [
        '   PM-------|',
        'e|--------------------------------|',
        'B|--------------------------------|',
        'G|--------------------7b9-----7~--|',
        'D|--------x-------5/7-------------|',
        'A|2---2---x---3h5-----------------|',
        'E|0---0---x-----------------------|',
        '  1   &   2   &   3   &   4   &',
      ].join('\n'),
    );
    expect(strums.map((s) => s.palmMute)).toEqual([
      true,
      true,
      false,
      false,
      false,
      false,
      false,
      false,
      false,
    ]);
    expect(strums[2]).toMatchObject({ dead: true });
    expect(strums[4].marks.join).toBe('hammer');
    expect(strums[6].marks.join).toBe('slide');
    expect(strums[7].marks.bendCents).toBe(200);
    expect(strums[8].marks.vibrato).toBe(true);
  });

  it('plays what stands between repeat signs as often as it says', () => {
    const lines = ['e', 'B', 'G', 'D', 'A', 'E'].map((s) => `${s}||:0-------:|----0---| x3`);
    const [first, second] = read(lines.join('\n')).document.sections;
    expect([first.passes, second.passes]).toEqual([2, 3]);
  });

  it('names what stands over a riff, and keeps systems without a name together', () => {
    const system = ['e|----|', 'B|----|', 'G|----|', 'D|2---|', 'A|2---|', 'E|0---|'].join('\n');
    const { riffs } = read(
      `Low Tide\n\n[Intro]\n${system}\n\n${system}\n\nChorus:\n${system.replace('0', '3')}`,
    ).document;
    expect(riffs.map((r) => [r.name, r.bars.length])).toEqual([
      ['Intro', 2],
      ['Chorus', 1],
    ]);
  });

  it.each([
    ['e|--0--|\nB|--?--|\nG|-----|', 2, 5],
    ['e|--0--|--|\nB|--0-|\nG|-----|', 2, 8],
    ['e|--0-----\nB|--------\nG|--------', 1, null],
  ])('tells line and column of what it can’t understand: %j', (text, line, column) => {
    expect(read(text).remarks).toContainEqual(expect.objectContaining({ line, column }));
  });

  it('reads a copy of a web page: other spaces and dashes, an empty line behind each', () => {
    const lines = ['e', 'B', 'G', 'D', 'A', 'E'].map((s, i) => `${s}\u00a0|––${i > 3 ? '3' : '–'}–––––|`);
    expect(inShort(only(lines.join('\r\n\r\n')))).toEqual(['960:6/3 5/3']);
    const spaced = ['e|        |', 'B|        |', 'G|        |', 'D|        |', 'A|2   2   |', 'E|0   0   |'];
    expect(inShort(only(spaced.join('\n')))).toEqual(['0:6/0 5/2', '1920:6/0 5/2']);
  });

  it('says what a tab is where there is none', () => {
    expect(() => read('just words\nand more')).toThrow(/no tab in it/);
    expect(() => read('E|-----|\nB|-----|\nG|-----|')).toThrow(/no fret is written/);
  });
});
