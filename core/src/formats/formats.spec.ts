import { describe, expect, it } from 'vitest';
import { PLAIN_SONG } from '../riff';
import { FORMATS } from './index';
import { SONG } from './test-song';

describe('the formats', () => {
  it('have names of their own', () => {
    expect(new Set(FORMATS.map((f) => f.id)).size).toBe(FORMATS.length);
    for (const { id, ending, mime } of FORMATS) {
      expect(id).toMatch(/^[a-z-]+$/);
      expect(ending).toMatch(/^[a-z]+$/);
      expect(mime).toMatch(/^text\//);
    }
  });

  it.each(FORMATS)('$id writes a song, and one with nothing in it, as whole lines', ({ write }) => {
    expect(write(SONG)).toContain('Verse');
    expect(write(SONG)).toMatch(/\n$/);
    expect(write(PLAIN_SONG)).not.toContain('undefined');
  });

  it.each(FORMATS.filter((f) => f.read))('$id comes back in as it went out', ({ write, read }) => {
    const blank = { ...SONG, sections: SONG.sections.map((s) => ({ ...s, name: 'Part' })) };
    expect(write(read!(blank, write(SONG)))).toBe(write(SONG));
  });
});
