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
});
