import { describe, expect, it } from 'vitest';
import { parseTuning, soundingNotes, STANDARD_TUNING, type StringFret } from '../guitar';
import { changeAsGuitar, PLAIN_RIFF, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from '../riff';
import { retune } from './retune';

const DROP_D = parseTuning('D2,A2,D3,G3,B3,E4');

function song(...chords: readonly (readonly StringFret[])[]): SongDocument {
  return {
    ...PLAIN_SONG,
    riffs: [
      {
        id: 'r',
        ...PLAIN_RIFF,
        letter: 'A',
        name: '',
        bars: [{ beats: 4, unit: 4 }],
        strums: chords.map((frets, i) => ({
          ...PLAIN_STRUM,
          id: String(i),
          startTicks: 480 * i,
          durationTicks: 480,
          frets,
          dead: frets.length === 0,
          trust: 'checked',
        })),
      },
    ],
  };
}

const frets = (document: SongDocument): (readonly StringFret[])[] =>
  document.riffs[0].strums.map((s) => s.frets);

const E5 = [
  { string: 6, fret: 0 },
  { string: 5, fret: 2 },
  { string: 4, fret: 2 },
];
const G5 = [
  { string: 6, fret: 3 },
  { string: 5, fret: 5 },
];

describe('a tab in another tuning', () => {
  it('sounds the same, with one finger in a dropped one', () => {
    const before = song(E5, G5, []);
    const { document, lost } = retune(before, DROP_D);
    expect(lost).toEqual([]);
    expect(frets(document)[0]).toEqual([
      { string: 6, fret: 2 },
      { string: 5, fret: 2 },
      { string: 4, fret: 2 },
    ]);
    [E5, G5].forEach((chord, i) =>
      expect(soundingNotes(DROP_D, frets(document)[i])).toEqual(soundingNotes(STANDARD_TUNING, chord)),
    );
    expect(document.riffs[0].strums[2]).toEqual(before.riffs[0].strums[2]);
  });

  it('says what can no longer be played, keeps the rest and marks it', () => {
    const capo = { ...STANDARD_TUNING, capo: 2 };
    const { document, lost } = retune(song(E5, G5), capo);
    expect(lost).toEqual([{ riffId: 'r', strumId: '0', notes: [40] }]);
    expect(soundingNotes(capo, frets(document)[0])).toEqual([47, 52]);
    expect(document.riffs[0].strums.map((s) => s.trust)).toEqual(['guessed', 'checked']);
  });

  it('comes back as it was', () => {
    const there = retune(song(E5, G5), DROP_D).document;
    const { document } = retune(there, STANDARD_TUNING);
    expect(frets(document).map((f) => soundingNotes(STANDARD_TUNING, f))).toEqual(
      [E5, G5].map((f) => soundingNotes(STANDARD_TUNING, f)),
    );
  });

  it('leaves the other guitar as it is', () => {
    const alone = song(E5);
    const two: SongDocument = {
      ...alone,
      guitar2: STANDARD_TUNING,
      riffs: [{ ...alone.riffs[0], guitar2: [{ ...alone.riffs[0].strums[0], id: 'second' }] }],
    };
    const moved = changeAsGuitar(two, 2, (d) => retune(d, DROP_D).document);
    expect([moved.tuning, moved.guitar2]).toEqual([STANDARD_TUNING, DROP_D]);
    expect(moved.riffs[0].guitar2[0].frets).not.toEqual(two.riffs[0].guitar2[0].frets);
    expect(moved.riffs[0].strums).toEqual(two.riffs[0].strums);
  });
});
