import { describe, expect, it } from 'vitest';
import { SONG } from '../test-song';
import { LABEL_TRACK, parseLabelTrack, sectionsFromLabels, writeLabelTrack } from './label-track';

describe('a label track', () => {
  it('has a line for each section', () => {
    expect(writeLabelTrack(SONG)).toBe('0.000\t8.000\tIntro, "slow"\n8.000\t24.000\tVerse\n');
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
    expect(() => LABEL_TRACK.read?.(SONG, '0\t1\tShort')).toThrow('whole pass');
  });

  it('cuts a name that is too long for a section, whole characters only', () => {
    const [section] = sectionsFromLabels(SONG, parseLabelTrack(`0\t8\t${'x'.repeat(79)}🎸🎸`));
    expect(section.name).toBe('x'.repeat(79));
  });
});
