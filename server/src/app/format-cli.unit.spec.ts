import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { upgradeDocument } from '@wild-needle/contract';
import { FORMATS } from '@wild-needle/core/formats';
import { PLAIN_SONG } from '@wild-needle/core/riff';
import { madeUpSong } from '../../../core/src/formats/test-songs';
import { formatSong } from './format-cli';

describe('export', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wn-format-'));
  const song = join(folder, 'song.json');
  const other = join(folder, 'other.json');
  writeFileSync(song, JSON.stringify({ ...PLAIN_SONG, title: 'Invented Song' }));
  writeFileSync(other, '{"title":"no song"}');

  it.each(FORMATS.map((format) => [format.id, format] as const))('writes %s', async (id, format) => {
    const read = upgradeDocument({ ...PLAIN_SONG, title: 'Invented Song' });
    expect(await formatSong([song, id])).toEqual(await format.write(read));
  });

  it.each([
    ['a format that there is none of', [song, 'wax-cylinder'], /one of text-tab, /],
    ['nothing', [], /Give a song and a format/],
    ['a file that is not there', [join(folder, 'gone.json'), 'text-tab'], /gone\.json can't be read/],
    ['a file of something else', [other, 'text-tab'], /other\.json is not a song/],
  ])('says what to do for %s', async (_name, args, message) => {
    await expect(formatSong(args)).rejects.toThrow(message);
  });

  it('gives back a song file as it was, whatever the song', () => {
    const file = FORMATS.find((f) => f.id === 'song-file')!;
    fc.assert(
      fc.property(madeUpSong, (song) => {
        const back = (from: typeof song): typeof song =>
          upgradeDocument(JSON.parse(file.write(from) as string));
        const read = back(song);
        expect(read).toEqual(song);
        // From the second time on the text is the same to the letter.
        expect(file.write(back(read))).toBe(file.write(read));
      }),
      { numRuns: 50 },
    );
  });
});
