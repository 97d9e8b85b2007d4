import { describe, expect, it } from 'vitest';
import {
  betweenWords,
  correctionWords,
  driftWords,
  reasonWords,
  retuningWords,
  sharpOrFlat,
  isWithoutPitch,
  spreadWords,
  stepWords,
  tunerWords,
} from './tuning-words';

const REASONS = {
  lowestAboveOpen: 0,
  openShare: 0.1,
  oneFingerShare: 0.4,
  unplayableShare: 0,
  meanEffort: 1,
};
const candidate = (reasons: Partial<typeof REASONS>, capo = 0) => ({
  name: 'drop-d',
  stringsMidi: [38],
  capo,
  score: 0.9,
  reasons: { ...REASONS, ...reasons },
});

describe('words of the tuning screen', () => {
  it('say pitch, spread and drift', () => {
    expect([sharpOrFlat(38.2), sharpOrFlat(-1), sharpOrFlat(0.3)]).toEqual([
      'cents sharp',
      'cent flat',
      'at concert pitch',
    ]);
    expect([spreadWords(3.4), spreadWords(17)]).toEqual([
      'steady within 3 cents',
      'half the overtones lie within 17 cents',
    ]);
    expect([17, 22.8, 25].map(isWithoutPitch)).toEqual([false, false, true]);
    const at = (timeS: number, cents: number) => ({ timeS, cents });
    expect(driftWords([at(5, 37), at(15, 39)])).toBe('No drift: +37 cents to +39 cents over the song.');
    expect(driftWords([at(5, 37), at(65, 52)])).toContain('+52 cents at 1:05');
    expect(driftWords([])).toContain('Too short');
  });

  it('name the two notes a recording lies between', () => {
    expect(betweenWords(38, 4, null)).toBe('Between E and F: the low E of this record lies 38 cents over E.');
    expect(betweenWords(-40, 5, null)).toContain('Between E and F: the low F');
    expect(betweenWords(10, 4, null)).toBeNull();
  });

  it('give reasons for a tuning and against it', () => {
    expect(reasonWords(candidate({}))).toBe(
      'The lowest note heard is its open low string. 40\u00a0% of the chords need one finger.',
    );
    expect(reasonWords(candidate({ lowestAboveOpen: 2, oneFingerShare: 0 }))).toBe(
      'Nothing sounds on the lowest 2 frets of its low string.',
    );
    const worse = candidate({ lowestAboveOpen: -1, unplayableShare: 0.3, oneFingerShare: 0, openShare: 0.5 });
    expect(reasonWords(worse)).toBe(
      "The lowest note heard lies 1 under its low string. 30\u00a0% of the chords can't be played. 50\u00a0% of the chords have open strings.",
    );
    expect(reasonWords({ ...candidate({}), reasons: null })).toContain('no reasons');
  });

  it('say where a string goes', () => {
    expect([stepWords(-3), stepWords(0), stepWords(1)]).toEqual(['down 3', 'as in standard', 'up 1']);
    expect([-120, -40, -12, -4, 1, 4].map(tunerWords)).toEqual([
      'Tune up far',
      'Tune up',
      'Tune up a little',
      'Tune up a hair',
      'In tune',
      'Tune down a hair',
    ]);
  });
});

describe('what becomes of a recording off 440 Hz', () => {
  it('is said in cents, and of one in the singular', () => {
    expect([23.4, 1, 0.3, -1.2, -8].map(correctionWords)).toEqual([
      'Plays 23 cents lower',
      'Plays 1 cent lower',
      'It is in tune',
      'Plays 1 cent higher',
      'Plays 8 cents higher',
    ]);
    expect([23.4, 1, 0.3, -1.2].map(retuningWords)).toEqual([
      'Every string 23 cents up',
      'Every string 1 cent up',
      'As in standard',
      'Every string 1 cent down',
    ]);
  });
});
