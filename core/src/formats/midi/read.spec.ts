import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../guitar';
import { NO_MARKS, strumsInPasses, type SongDocument, type Strum } from '../../riff';
import { madeUpSong } from '../test-songs';
import { readMidiFile } from './read';
import { writeMidiFile } from './write';

/** Without what MIDI can only say by the wheel, and on sixteenths: what is played is what was struck. */
function plain(song: SongDocument): SongDocument {
  const strums = (all: readonly Strum[]): Strum[] =>
    all.filter((s) => !s.dead && !s.rest && s.startTicks % 240 === 0).map((s) => ({ ...s, marks: NO_MARKS }));
  return {
    ...song,
    guitar2: null,
    riffs: song.riffs.map((riff) => ({
      ...riff,
      strums: strums(riff.strums),
      guitar2: [],
      variations: riff.variations.map((v) => ({ ...v, strums: strums(v.strums) })),
    })),
  };
}

/** Sixteenths at 120 bpm end on a half of what two decimals show. */
const ASIDE_S = 0.001;

/** When what sounds, muted or not; notes of one pitch on two strings are one. */
const sounds = (song: SongDocument, shiftS = 0): string[] =>
  strumsInPasses(song).map(
    ({ timeS, midi, strum }) =>
      `${(timeS - shiftS + ASIDE_S).toFixed(2)} ${[...new Set(midi)].join(' ')}${strum.palmMute ? ' muted' : ''}`,
  );

describe('a MIDI file brought in', () => {
  it('sounds as it did, muted and not, on the strings of the song', () => {
    fc.assert(
      fc.property(madeUpSong.map(plain), (song) => {
        fc.pre(strumsInPasses(song).length > 0);
        const { document } = readMidiFile(writeMidiFile(song), { tuning: song.tuning });
        const wanted = new Map(sounds(song).map((s) => [s.split(' ')[0], s]));
        for (const sound of sounds(document)) {
          const [, ...own] = sound.split(' ');
          const all = wanted.get(sound.split(' ')[0])?.split(' ') ?? [];
          // Chords that no hand can finger lose their highest notes, and nothing else.
          expect(
            all
              .slice(1, own.length + 1)
              .join(' ')
              .replace(' muted', ''),
          ).toContain(own[0]);
        }
        expect(sounds(document).length).toBeGreaterThan(0);
        expect(document.grid.beatsS[1]).toBeCloseTo(song.grid.beatsS[1], 3);
      }),
      { numRuns: 40 },
    );
  });

  it('begins at a bar where the recording begins before its first beat', () => {
    const [made] = fc
      .sample(madeUpSong.map(plain), { seed: 3, numRuns: 20 })
      .filter((s) => strumsInPasses(s).length > 6);
    const late = { ...made, grid: { ...made.grid, beatsS: made.grid.beatsS.map((t) => t + 0.7) } };
    const { document } = readMidiFile(writeMidiFile(late), { tuning: made.tuning });
    const [first] = strumsInPasses(document);
    expect(first.strum.startTicks % 240).toBe(0);
    expect(document.sections.map((s) => s.name)).toContain(late.sections[0].name);
  });

  it('has the track of the guitar, or the one that is chosen', () => {
    const [song] = fc
      .sample(madeUpSong, { seed: 7, numRuns: 30 })
      .filter((s) => s.guitar2 && s.riffs[0].strums.length > 3 && s.riffs[0].guitar2.length > 3);
    const both = writeMidiFile({ ...song, sections: song.sections.map((s) => ({ ...s, riffId: 'r0' })) });
    const first = readMidiFile(both, { tuning: STANDARD_TUNING });
    expect(first.tracks.map((t) => t.name)).toEqual(['Guitar 1', 'Guitar 2']);
    expect(first.track).toBe(0);
    expect(readMidiFile(both, { tuning: STANDARD_TUNING, track: 1 }).track).toBe(1);
  });
});
