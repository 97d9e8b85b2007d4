import { describe, expect, it } from 'vitest';
import { parseTuning, STANDARD_TUNING } from '../guitar';
import {
  PLAIN_RIFF,
  PLAIN_SECTION,
  PLAIN_SONG,
  PLAIN_STRUM,
  strumNotes,
  type Riff,
  type SongDocument,
} from '../riff';
import { putBeside, putInPlace } from './take-over';

const riff = (letter: string, bars: number, fret: number): Riff => ({
  ...{ ...PLAIN_RIFF, id: `id-${letter}`, letter, name: `Riff ${letter}` },
  bars: Array.from({ length: bars }, () => ({ beats: 4, unit: 4 as const })),
  strums: [
    {
      ...PLAIN_STRUM,
      ...{ id: `strum-${letter}`, startTicks: 0, durationTicks: 960, trust: 'guessed' as const },
      frets: [
        { string: 6, fret },
        { string: 5, fret: fret + 2 },
      ],
    },
  ],
});
const MINE: SongDocument = {
  ...PLAIN_SONG,
  title: 'Mine',
  grid: {
    beatsS: Array.from({ length: 33 }, (_, i) => i / 2),
    bars: Array.from({ length: 8 }, (_, i) => ({ beat: 4 * i, beats: 4, unit: 4 as const })),
  },
  riffs: [riff('A', 2, 0), riff('B', 2, 5)],
  sections: [
    { ...PLAIN_SECTION, id: 's', name: 'Verse', riffId: 'id-A', startBar: 0, passes: 4, transpose: 0 },
  ],
};
const THEIRS: SongDocument = {
  ...PLAIN_SONG,
  title: 'Theirs',
  riffs: [riff('A', 4, 3), riff('D', 1, 7)],
  sections: [
    { ...PLAIN_SECTION, id: 't', name: 'Intro', riffId: 'id-A', startBar: 0, passes: 1, transpose: 0 },
    { ...PLAIN_SECTION, id: 'u', name: 'Late', riffId: 'id-D', startBar: 99, passes: 1, transpose: 0 },
  ],
};
function ids(): () => string {
  let count = 0;
  return () => `new-${count++}`;
}
const shapes = ({ riffs }: SongDocument): string[] =>
  riffs.map((r) => `${r.letter} ${r.strums[0].frets.map((f) => f.fret).join()}`);

describe('what was brought in', () => {
  it('stands beside what is written, under the next free letter, and nothing of mine is touched', () => {
    const song = putBeside(MINE, THEIRS, ids());
    expect(shapes(song)).toEqual(['A 0,2', 'B 5,7', 'C 3,5', 'D 7,9']);
    expect(song.riffs[2].name).toBe('Riff C');
    expect(song.riffs.slice(0, 2)).toEqual(MINE.riffs);
    expect([song.title, song.sections, song.grid]).toEqual([MINE.title, MINE.sections, MINE.grid]);
    expect(new Set(song.riffs.flatMap((r) => [r.id, ...r.strums.map((s) => s.id)])).size).toBe(8);
  });

  it('takes the place of riffs of its letters; their sections cover the bars that they did', () => {
    const song = putInPlace(MINE, THEIRS, ids());
    expect(shapes(song)).toEqual(['A 3,5', 'B 5,7', 'D 7,9']);
    expect(song.sections).toMatchObject([{ id: 's', riffId: 'id-A', passes: 2, startBar: 0 }]);
  });

  it('brings its road map where there is none, as far as the recording goes', () => {
    const song = putInPlace({ ...MINE, sections: [] }, THEIRS, ids());
    expect(song.sections.map((s) => s.name)).toEqual(['Intro']);
    expect(song.riffs.find((r) => r.id === song.sections[0].riffId)?.letter).toBe('A');
  });

  it('sounds the same in the tuning of the song', () => {
    const low = { ...MINE, tuning: parseTuning('D2,A2,D3,G3,B3,E4') };
    const song = putBeside(low, THEIRS, ids());
    const notes = (s: SongDocument, at: number): number[] => strumNotes(s.riffs[at].strums[0], s.tuning);
    expect(notes(song, 2)).toEqual(notes({ ...THEIRS, tuning: STANDARD_TUNING }, 0));
    expect(song.riffs[2].strums[0].frets).not.toEqual(THEIRS.riffs[0].strums[0].frets);
  });

  it('is refused where a song would hold too much', () => {
    const many = { ...THEIRS, riffs: Array.from({ length: 199 }, (_, i) => riff(`Z${i}`.slice(0, 4), 1, 0)) };
    expect(() => putBeside(MINE, many, ids())).toThrow(/201 riffs, and it holds 200/);
  });
});
