import { parse } from 'csv-parse/sync';
import { describe, expect, it } from 'vitest';
import { SONG } from '../test-song';
import { writeSectionCsv } from './section-csv';

describe('sections as CSV', () => {
  it('have a line each, with quotes where RFC 4180 wants them', () => {
    expect(writeSectionCsv(SONG).split('\r\n')).toEqual([
      'section,start_s,end_s,bars,riff,semitones,passes',
      '"Intro, ""slow""",0.000,8.000,4,A,0,2',
      'Verse,8.000,24.000,8,A,2,4',
      '',
    ]);
  });

  it('are read by another package, whatever they are called', () => {
    const names = ['a,b', 'c"d', 'e\nf', '', ' g '];
    const sections = names.map((name, i) => ({
      ...SONG.sections[0],
      ...{ id: `s${i}`, name, startBar: 2 * i, passes: 1 },
    }));
    const read: unknown = parse(writeSectionCsv({ ...SONG, sections }), { columns: true });
    expect((read as { section: string }[]).map((r) => r.section)).toEqual(names);
  });

  it('with nothing in it has its head', () => {
    const empty = writeSectionCsv({ ...SONG, sections: [] });
    expect(empty).toBe('section,start_s,end_s,bars,riff,semitones,passes\r\n');
  });
});
