import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../guitar';
import { madeUpSong, playedText } from '../test-songs';
import { readMusicXml } from './read';
import { writeMusicXml } from './write';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

describe('MusicXML', () => {
  it('brings back what it wrote: strings, frets, times, repeats, endings and every mark', () => {
    fc.assert(
      fc.property(madeUpSong, (song) => {
        fc.pre(playedText(song).some((pass) => pass.includes('[')));
        const { document } = readMusicXml(bytes(writeMusicXml(song)), { tuning: STANDARD_TUNING });
        const sections = song.sections.map((s) => s.name);
        const back = { ...document, sections: document.sections.filter((s) => sections.includes(s.name)) };
        expect(playedText(back)).toEqual(playedText(song));
        expect(document.tuning).toEqual(song.tuning);
        expect(document.key).toEqual(song.key);
        expect([document.title, document.artist]).toEqual([song.title, song.artist]);
      }),
      { numRuns: 60 },
    );
  });
});
