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
      expect(mime).toMatch(/^(text|audio|application)\/[a-z.+-]+$/);
    }
  });

  it.each(FORMATS)('$id writes a song, and one with nothing in it, whole', async ({ write }) => {
    const [song, empty] = [await write(SONG), await write(PLAIN_SONG)];
    if (typeof song === 'string') {
      expect(song).toContain('Verse');
      expect(song).toMatch(/\n$/);
      expect(empty).not.toContain('undefined');
    } else {
      expect(new TextDecoder('latin1').decode(song)).toContain('Verse');
      expect(empty.length).toBeGreaterThan(0);
    }
  });

  it.each(FORMATS.filter((f) => f.read))('$id comes back in as it went out', async ({ write, read }) => {
    const blank = { ...SONG, sections: SONG.sections.map((s) => ({ ...s, name: 'Part' })) };
    expect(await write(read!(blank, String(await write(SONG))))).toBe(await write(SONG));
  });
});
