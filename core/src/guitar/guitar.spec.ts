import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chooseHandPath } from './hand-path';
import { parseTuning, soundingNote, soundingNotes, STANDARD_TUNING, tuningLabel } from './tuning';
import { rankTunings, type PlayedNotes } from './tuning-candidates';
import { TUNINGS } from './tunings.data';
import { findVoicings, type Voicing } from './voicing';

const DROP_D = { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 };

function fretsOf(voicing: { frets: readonly { string: number; fret: number }[] }): string {
  return voicing.frets.map((f) => `${f.string}:${f.fret}`).join(' ');
}

describe('tuning', () => {
  it('counts frets from the capo', () => {
    expect(soundingNote({ ...STANDARD_TUNING, capo: 2 }, { string: 6, fret: 3 })).toBe(45);
  });

  it('says which strings there are when one does not exist', () => {
    expect(() => soundingNote(STANDARD_TUNING, { string: 7, fret: 0 })).toThrow(
      'string must be from 1 to 6, but was 7',
    );
  });

  it('is called by its name, with the capo', () => {
    expect(tuningLabel(DROP_D)).toBe('Drop D');
    expect(tuningLabel({ ...STANDARD_TUNING, capo: 3 })).toBe('Standard, capo 3');
    expect(tuningLabel({ name: 'my own', stringsMidi: [40], capo: 0 })).toBe('Custom tuning');
  });
});

describe('findVoicings', () => {
  it('plays E5 open in standard, two frets apart', () => {
    expect(fretsOf(findVoicings([40, 47, 52], STANDARD_TUNING)[0])).toBe('6:0 5:2 4:2');
  });

  it('plays a power chord with one finger in a dropped tuning', () => {
    expect(fretsOf(findVoicings([43, 50, 55], DROP_D)[0])).toBe('6:5 5:5 4:5');
  });

  it('finds nothing below the lowest string, and nothing too wide for a hand', () => {
    expect(findVoicings([35, 42], STANDARD_TUNING)).toEqual([]);
    expect(findVoicings([41, 43], STANDARD_TUNING)).toEqual([]);
  });

  it('always sounds exactly the notes that were asked for', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 36, max: 76 }), { minLength: 1, maxLength: 6 }),
        (notes) => {
          const wanted = [...notes].sort((a, b) => a - b);
          for (const voicing of findVoicings(notes, DROP_D).slice(0, 20)) {
            expect(soundingNotes(DROP_D, voicing.frets)).toEqual(wanted);
          }
        },
      ),
      { seed: 1, numRuns: 200 },
    );
  });
});

describe('chooseHandPath', () => {
  it('stays near its neighbours rather than taking each easiest shape', () => {
    const at = (position: number, effort: number): Voicing => ({
      frets: [{ string: 6, fret: position }],
      position,
      effort,
    });
    const [near, far] = [at(9, 2), at(1, 1.2)];
    expect(chooseHandPath([[at(10, 1)], [far, near], [at(10, 1)]]).path[1]).toBe(near);
    expect(chooseHandPath([[far, near]]).path[0]).toBe(far);
  });

  it('is empty for no strums', () => {
    expect(chooseHandPath([])).toEqual({ path: [], cost: 0 });
  });
});

describe('rankTunings', () => {
  const ringing = (midi: readonly number[]): PlayedNotes => ({ midi, palmMuted: false });

  it('reads one-finger chords on an open low D as drop D', () => {
    const riff = [
      [38, 45, 50],
      [41, 48, 53],
      [43, 50, 55],
      [38, 45, 50],
      [46, 53, 58],
    ];
    expect(rankTunings(riff.map(ringing))[0].tuning).toMatchObject({ name: 'drop-d', capo: 0 });
  });

  it('reads chords on an open low E as standard', () => {
    const riff = [
      [40, 47, 52],
      [43, 50, 55],
      [45, 52, 57],
      [40, 47, 52],
    ];
    expect(rankTunings(riff.map(ringing))[0].tuning).toMatchObject({ name: 'standard', capo: 0 });
  });

  // Common practice: a capo is put where the open chords are wanted.
  it('proposes a capo where chords stand on all low open strings with it, and only there', () => {
    const power = (bass: number): number[] => [bass, bass + 7];
    const onFirstFret = [41, 41, 46, 41, 51, 46, 44, 41, 46, 41, 48, 51].map(power);
    expect(rankTunings(onFirstFret.map(ringing))[0].tuning).toMatchObject({ name: 'standard', capo: 1 });
    // F# and A, the open string, in turn: no capo is behind an open A.
    const across = [42, 42, 45, 42, 45, 50, 45, 42, 45, 47].map(power);
    expect(rankTunings(across.map(ringing))[0].tuning).toMatchObject({ name: 'standard', capo: 0 });
    // A riff in G# that goes down to the open A: the fourth fret is no place for a capo.
    const high = [51, 51, 49, 49, 44, 44, 47, 45, 51, 49, 44, 49, 51, 44, 47].map(power);
    expect(rankTunings(high.map(ringing))[0].tuning).toMatchObject({ name: 'standard', capo: 0 });
  });

  it('proposes no capo for a home chord alone, which may lie at any fret', () => {
    const home = [41, 41, 41, 44, 41, 41, 43, 41, 48, 41].map((bass) => [bass, bass + 7, bass + 12]);
    expect(rankTunings(home.map(ringing))[0].tuning.capo).toBe(0);
  });

  it('takes chords on notes that no string has for driven fourths, not for another tuning', () => {
    // Fourths over A and B with the root that the amplifier adds below, between chords that reach down to the low E.
    const fourths = [33, 40, 45, 35, 42, 47, 33, 40, 45];
    const chords = [0, 3, 6].map((k) => fourths.slice(k, k + 3));
    const riff = [...chords, ...chords, [40, 47, 52], [43, 50, 55], [45, 52, 57], [40, 47, 52]];
    const [first] = rankTunings(riff.map(ringing));
    expect(first.tuning).toMatchObject({ name: 'standard', capo: 0 });
    expect([first.lowestAboveOpen, first.unplayableShare]).toEqual([0, 0]);
    // One finger on the open strings of a dropped tuning stays what it is.
    const dropped = [
      [38, 45, 50],
      [40, 47, 52],
      [43, 50, 55],
      [45, 52, 57],
      [41, 48, 53],
    ];
    expect(rankTunings([...dropped, ...dropped].map(ringing))[0].tuning).toMatchObject({ name: 'drop-d' });
  });

  it('gives probabilities, and nothing for silence', () => {
    const ranked = rankTunings([ringing([40, 47])]);
    expect(ranked.reduce((sum, c) => sum + c.score, 0)).toBeCloseTo(1, 6);
    expect(rankTunings([ringing([]), ringing([])])).toEqual([]);
  });

  it('knows every tuning by a name of its own', () => {
    expect(new Set(TUNINGS.map((t) => t.name)).size).toBe(TUNINGS.length);
  });
});

describe('a tuning that is entered', () => {
  it('is known by its strings, or custom', () => {
    expect(parseTuning('D2, A2, D3, G3, B3, E4').name).toBe('drop-d');
    expect(parseTuning('D2,D3,d3,F#3,Bb3,E4')).toEqual({
      name: 'custom',
      stringsMidi: [38, 50, 50, 54, 58, 64],
      capo: 0,
    });
  });

  it('says which string it could not read', () => {
    expect(() => parseTuning('E2,H2')).toThrow(/"H2"/);
    expect(() => parseTuning(Array(13).fill('E2').join())).toThrow(/at most 12 strings, but 13/);
  });
});
