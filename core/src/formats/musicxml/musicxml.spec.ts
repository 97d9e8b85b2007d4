import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
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
      { numRuns: 40 },
    );
  });

  it('is read packed as well', () => {
    const [song] = fc
      .sample(madeUpSong, { seed: 4, numRuns: 10 })
      .filter((s) => s.riffs[0].strums.length > 3);
    const xml = writeMusicXml(song);
    const container = '<container><rootfiles><rootfile full-path="score/song.xml"/></rootfiles></container>';
    const packed = zipSync({
      'META-INF/container.xml': strToU8(container),
      'other.xml': strToU8('<nothing/>'),
      'score/song.xml': strToU8(xml),
    });
    const options = { tuning: STANDARD_TUNING };
    expect(readMusicXml(packed, options)).toEqual(readMusicXml(bytes(xml), options));
  });

  it('fingers the notes of a score without tablature, and tells what no guitar reaches', () => {
    const note = (step: string, octave: number, chord = ''): string =>
      `<note>${chord}<pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>2</duration></note>`;
    const score = `<score-partwise><part-list><score-part id="a"><part-name>Flute</part-name></score-part>
      <score-part id="b"><part-name>Guitar</part-name></score-part></part-list>
      <part id="a"><measure number="1"><attributes><divisions>1</divisions></attributes>${note('C', 6)}</measure></part>
      <part id="b"><measure number="1"><attributes><divisions>1</divisions><key><fifths>1</fifths><mode>minor</mode></key></attributes>
      <direction><direction-type><metronome><beat-unit>quarter</beat-unit><per-minute>96</per-minute></metronome></direction-type></direction>
      ${note('E', 2)}${note('B', 2, '<chord/>')}${note('C', 1)}</measure></part></score-partwise>`;
    const { document, remarks, tracks, track } = readMusicXml(bytes(score), { tuning: STANDARD_TUNING });
    expect(document.riffs[0].strums[0]).toMatchObject({
      startTicks: 0,
      durationTicks: 1920,
      frets: [
        { string: 6, fret: 0 },
        { string: 5, fret: 2 },
      ],
    });
    expect([document.key, document.grid.beatsS[1]]).toEqual([{ tonic: 'E', mode: 'minor' }, 60 / 96]);
    expect(tracks.map((t) => t.name)).toEqual(['Flute', 'Guitar']);
    expect(track).toBe(1);
    expect(remarks).toMatchObject([{ words: '1 note of Guitar can’t be played in this tuning' }]);
    expect(
      readMusicXml(bytes(score), { tuning: STANDARD_TUNING, track: 0 }).document.riffs[0].strums,
    ).toHaveLength(1);
  });
});
