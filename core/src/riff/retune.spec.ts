import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseTuning, soundingNotes, STANDARD_TUNING, type StringFret } from '../guitar';
import { PLAIN_RIFF, PLAIN_SONG, PLAIN_STRUM, type SongDocument } from './document';
import { clearFret, markChecked, setFret } from './edit';
import { changeAsGuitar } from './guitars';
import { allLostNotes, leaveOutLost, lostNotes, retune } from './retune';

const DROP_D = parseTuning('D2,A2,D3,G3,B3,E4');
const CAPO_2 = { ...STANDARD_TUNING, capo: 2 };
const FOUR_STRINGS = parseTuning('D3,G3,B3,E4');
const SEVEN_STRINGS = parseTuning('B1,E2,A2,D3,G3,B3,E4');
const HIGH = parseTuning('A2,D3,G3,C4,E4,A4');

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
  it('keeps a note that is played above the seventeenth fret then', () => {
    const lower = parseTuning('D2,G2,C3,F3,A3,D4');
    const moved = retune(song([{ string: 1, fret: 17 }]), lower);
    expect(frets(moved)).toEqual([[{ string: 1, fret: 19 }]]);
  });

  it('sounds the same, with one finger in a dropped one', () => {
    const before = song(E5, G5, []);
    const document = retune(before, DROP_D);
    expect(allLostNotes(document)).toEqual([]);
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

  it('names what can no longer be played, and plays the rest', () => {
    const document = retune(song(E5, G5), CAPO_2);
    expect(allLostNotes(document)).toEqual([
      { riff: document.riffs[0], variation: null, strumId: '0', ticks: 0, notes: [40] },
    ]);
    expect(soundingNotes(CAPO_2, frets(document)[0])).toEqual([47, 52]);
    expect(document.riffs[0].strums.map((s) => s.trust)).toEqual(['checked', 'checked']);
  });

  it('stands empty where nothing of a chord can be played, and is named whole', () => {
    const high = { ...STANDARD_TUNING, capo: 12 };
    const document = retune(song([{ string: 6, fret: 1 }]), high);
    expect(frets(document)).toEqual([[]]);
    expect(lostNotes(document.riffs[0].strums[0], high)).toEqual([41]);
  });

  it('comes back fret by fret, whatever tunings lie between', () => {
    const tuning = fc.constantFrom(STANDARD_TUNING, DROP_D, CAPO_2, FOUR_STRINGS, SEVEN_STRINGS, HIGH);
    const chord = fc
      .uniqueArray(
        fc.record({ string: fc.integer({ min: 1, max: 6 }), fret: fc.integer({ min: 0, max: 15 }) }),
        {
          selector: (f) => f.string,
          maxLength: 4,
        },
      )
      .map((f) => f.sort((a, b) => b.string - a.string));
    fc.assert(
      fc.property(
        fc.array(chord, { maxLength: 6 }),
        fc.array(tuning, { maxLength: 5 }),
        (chords, between) => {
          const before = song(...chords);
          const away = between.reduce(retune, before);
          expect(retune(away, STANDARD_TUNING)).toEqual(before);
        },
      ),
      { seed: 19 },
    );
  });

  it('is computed from what was written, not from what the tuning before could play', () => {
    const twice = retune(retune(song(E5), CAPO_2), DROP_D);
    expect(twice).toEqual(retune(song(E5), DROP_D));
  });

  it('is what the user writes from then on', () => {
    const moved = retune(song(E5, G5), CAPO_2);
    const written = setFret(moved, 'r', '0', { string: 3, fret: 0 });
    expect(allLostNotes(written)).toEqual([]);
    expect(retune(retune(written, DROP_D), CAPO_2)).toEqual(written);
    expect(clearFret(moved, 'r', '0', 5).riffs[0].strums[0].writtenAs).toBeNull();
    // A look is no change of frets.
    expect(allLostNotes(markChecked(moved, 'r', new Set(['0'])))).toHaveLength(1);
  });

  it('gives up what is lost when it is told to', () => {
    const moved = leaveOutLost(retune(song(E5, G5), CAPO_2));
    expect(allLostNotes(moved)).toEqual([]);
    expect(soundingNotes(STANDARD_TUNING, frets(retune(moved, STANDARD_TUNING))[0])).toEqual([47, 52]);
    expect(leaveOutLost(moved)).toBe(moved);
  });

  it('leaves the other guitar as it is', () => {
    const alone = song(E5);
    const two: SongDocument = {
      ...alone,
      guitar2: STANDARD_TUNING,
      riffs: [{ ...alone.riffs[0], guitar2: [{ ...alone.riffs[0].strums[0], id: 'second' }] }],
    };
    const moved = changeAsGuitar(two, 2, (d) => retune(d, DROP_D));
    expect([moved.tuning, moved.guitar2]).toEqual([STANDARD_TUNING, DROP_D]);
    expect(moved.riffs[0].guitar2[0].frets).not.toEqual(two.riffs[0].guitar2[0].frets);
    expect(moved.riffs[0].strums).toEqual(two.riffs[0].strums);
  });
});
