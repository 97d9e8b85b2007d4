import { describe, expect, it } from 'vitest';
import { endBarOf } from '../../riff';
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

  it('is read with the frequencies that spectral editors write below a label', () => {
    expect(parseLabelTrack('0.5\t2.5\tIntro\n\\\t82.4\t1318.5\n3\t3\tSolo')).toEqual([
      { startS: 0.5, endS: 2.5, text: 'Intro' },
      { startS: 3, endS: 3, text: 'Solo' },
    ]);
  });

  it('makes a part without a riff where none is written, and cuts a riff that a label cuts', () => {
    const intro = { ...SONG, sections: SONG.sections.slice(0, 1) };
    const { sections } = LABEL_TRACK.read!(intro, '0\t6\tFirst\n6\t8\tSecond\n8\t16\tTalk');
    expect(sections.map((s) => [s.name, s.riffId, s.startBar, s.passes, s.skipBars, s.cutBars])).toEqual([
      ['First', 'a', 0, 2, 0, 1],
      ['Second', 'a', 3, 1, 1, 0],
      ['Talk', null, 4, 4, 0, 0],
    ]);
  });

  it('without lengths says where parts begin', () => {
    const { sections } = LABEL_TRACK.read!(SONG, '0\t0\tFirst\n8\t8\tSecond');
    expect(sections.map((s) => [s.startBar, endBarOf(SONG, s)])).toEqual([
      [0, 4],
      [4, SONG.grid.bars.length],
    ]);
  });

  it('says which line it can not read, and takes a label for at least a bar', () => {
    expect(() => parseLabelTrack('0\t1\tA\nverse one\n')).toThrow(/line 2 .* "verse one"/);
    expect(() => parseLabelTrack('5\t1\tA')).toThrow(RangeError);
    const [short] = sectionsFromLabels(SONG, parseLabelTrack('0\t1\tShort'));
    expect([short.startBar, endBarOf(SONG, short)]).toEqual([0, 1]);
    expect(() => LABEL_TRACK.read?.({ ...SONG, grid: { beatsS: [], bars: [] } }, '0\t1\tA')).toThrow(
      'over a bar',
    );
  });

  it('cuts a name that is too long for a section, whole characters only', () => {
    const [section] = sectionsFromLabels(SONG, parseLabelTrack(`0\t8\t${'x'.repeat(79)}🎸🎸`));
    expect(section.name).toBe('x'.repeat(79));
  });
});
