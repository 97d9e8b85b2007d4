import { describe, expect, it } from 'vitest';
import { type SongDocument, PLAIN_SECTION } from '../../riff';
import { parseLabelTrack, sectionsFromLabels, writeLabelTrack, writeSectionCsv } from './section-chart';

const bar = { beats: 4, unit: 4 };
/** Twelve bars of two seconds. */
const SONG = {
  grid: {
    beatsS: Array.from({ length: 49 }, (_, i) => i / 2),
    bars: Array.from({ length: 12 }, (_, i) => ({ beat: 4 * i, ...bar })),
  },
  riffs: [{ id: 'a', letter: 'A', bars: [bar, bar], strums: [] }],
  sections: [
    { id: '1', name: 'Intro, "slow"', riffId: 'a', startBar: 0, passes: 2, transpose: 0, ...PLAIN_SECTION },
    { id: '2', name: 'Verse', riffId: 'a', startBar: 4, passes: 4, transpose: 2, ...PLAIN_SECTION },
  ],
} as unknown as SongDocument;

describe('the section chart', () => {
  it('goes out as a label track and as CSV', () => {
    expect(writeLabelTrack(SONG)).toBe('0.000\t8.000\tIntro, "slow"\n8.000\t24.000\tVerse\n');
    expect(writeSectionCsv(SONG).split('\r\n').slice(0, 3)).toEqual([
      'section,start_s,end_s,bars,riff,semitones,passes',
      '"Intro, ""slow""",0.000,8.000,4,A,0,2',
      'Verse,8.000,24.000,8,A,2,4',
    ]);
  });

  it('comes back in at the nearest bars', () => {
    const labels = parseLabelTrack(writeLabelTrack(SONG));
    expect(sectionsFromLabels(SONG, labels).map((s) => [s.name, s.startBar, s.passes, s.transpose])).toEqual([
      ['Intro, "slow"', 0, 2, 0],
      ['Verse', 4, 4, 2],
    ]);
    const [first, second] = sectionsFromLabels(SONG, parseLabelTrack('7.7\t16.2\tOne\n15.8\t24.1\t\n'));
    expect([first.startBar, first.passes, second.startBar, second.name]).toEqual([4, 2, 8, 'Part 2']);
  });

  it('says which line it can not read, and leaves out what holds no pass', () => {
    expect(() => parseLabelTrack('0\t1\tA\nverse one\n')).toThrow(/line 2 .* "verse one"/);
    expect(() => parseLabelTrack('5\t1\tA')).toThrow(RangeError);
    expect(sectionsFromLabels(SONG, parseLabelTrack('0\t1\tShort'))).toEqual([]);
  });
});
