/** Tunings and power chords against facts of the trade. */
import { describe, expect, it } from 'vitest';
import { Note } from 'tonal';
import {
  findVoicings,
  fretAtMm,
  harmonicInterval,
  placeShape,
  POWER_SHAPES,
  soundingNotes,
  TUNINGS,
  type Tuning,
} from '../../src/guitar';

// Notes low to high. Standard: any guitar method; the others: common practice, they follow from their names.
const NOTES: Readonly<Record<(typeof TUNINGS)[number]['name'], string>> = {
  standard: 'E2 A2 D3 G3 B3 E4',
  'half-step-down': 'Eb2 Ab2 Db3 Gb3 Bb3 Eb4',
  'd-standard': 'D2 G2 C3 F3 A3 D4',
  'c#-standard': 'C#2 F#2 B2 E3 G#3 C#4',
  'c-standard': 'C2 F2 Bb2 Eb3 G3 C4',
  'b-standard': 'B1 E2 A2 D3 F#3 B3',
  'drop-d': 'D2 A2 D3 G3 B3 E4',
  'drop-c#': 'C#2 G#2 C#3 F#3 A#3 D#4',
  'drop-c': 'C2 G2 C3 F3 A3 D4',
  'drop-b': 'B1 F#2 B2 E3 G#3 C#4',
  'double-drop-d': 'D2 A2 D3 G3 B3 D4',
  'open-d': 'D2 A2 D3 F#3 A3 D4',
  'open-g': 'D2 G2 D3 G3 B3 D4',
  'open-fifth-d': 'D2 A2 D3 A3 D4 A4',
  'open-fifth-c': 'C2 G2 C3 G3 C4 G4',
  'seven-string': 'B1 E2 A2 D3 G3 B3 E4',
};

describe('tunings', () => {
  it.each(TUNINGS)('$name has the notes of its name', ({ name, strings }) => {
    expect([...strings]).toEqual(NOTES[name].split(' ').map((n) => Note.midi(n)));
  });
});

describe('power chords on the neck (common practice)', () => {
  const standard: Tuning = { name: 'standard', stringsMidi: TUNINGS[0].strings, capo: 0 };
  const dropD = { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 };

  it('root on the sixth string, the fifth two frets up on the next, the octave beside it', () => {
    const [first] = findVoicings([43, 50, 55], standard);
    expect(first.frets).toEqual([
      { string: 6, fret: 3 },
      { string: 5, fret: 5 },
      { string: 4, fret: 5 },
    ]);
  });

  it('one finger straight across in a dropped tuning, at every fret', () => {
    for (let fret = 0; fret <= 12; fret++) {
      const straight = [6, 5, 4].map((string) => ({ string, fret }));
      const found = findVoicings(soundingNotes(dropD, straight), dropD).map((v) => v.frets);
      expect(found).toContainEqual(straight);
    }
  });

  it('the inverted shape lies on one fret of neighbouring strings a fourth apart', () => {
    const same = [
      { string: 5, fret: 5 },
      { string: 4, fret: 5 },
    ];
    expect(findVoicings([50, 55], standard).map((v) => v.frets)).toContainEqual(same);
  });
});

describe('shapes by name (common practice of power chords)', () => {
  const standard: Tuning = { name: 'standard', stringsMidi: TUNINGS[0].strings, capo: 0 };
  const dropD = { name: 'drop-d', stringsMidi: [38, 45, 50, 55, 59, 64], capo: 0 };
  const frets = (id: string, root: { string: number; fret: number }, tuning: Tuning): string => {
    const shape = POWER_SHAPES.find((s) => s.id === id);
    const placed = shape && placeShape(shape, root, tuning);
    return placed?.map((f) => `${f.string}/${f.fret}`).join(' ') ?? 'none';
  };

  it.each([
    ['two-strings', '6/3 5/5'],
    ['three-strings', '6/3 5/5 4/5'],
    // Six semitones: one fret less than the fifth.
    ['flat-five', '6/3 5/4'],
    // The octave lies two strings on and two frets up.
    ['octave', '6/3 4/5'],
    // The ninth lies two frets above the fifth's fret on the string after it.
    ['sus2', '6/3 5/5 4/7'],
    // Fifth, octave and fourth on one fret.
    ['sus4', '6/3 5/5 4/5 3/5'],
  ])('%s on the third fret of the low E', (id, expected) => {
    expect(frets(id, { string: 6, fret: 3 }, standard)).toBe(expected);
  });

  it('the fifth below lies on the same fret of the next thicker string', () => {
    expect(frets('fifth-below', { string: 5, fret: 5 }, standard)).toBe('6/5 5/5');
  });

  it('the octave from the fourth string needs a fret more, over the major third of the tuning', () => {
    expect(frets('octave', { string: 4, fret: 5 }, standard)).toBe('4/5 2/8');
  });

  it('in a dropped tuning the three-string chord is one finger', () => {
    expect(frets('three-strings', { string: 6, fret: 5 }, dropD)).toBe('6/5 5/5 4/5');
    expect(frets('one-finger', { string: 6, fret: 5 }, dropD)).toBe('6/5 5/5 4/5');
  });

  it('ends with the neck', () => {
    expect(frets('two-strings', { string: 6, fret: 23 }, standard)).toBe('none');
    expect(frets('two-strings', { string: 1, fret: 3 }, standard)).toBe('none');
  });
});

describe('frets', () => {
  // Luthiers' rule, known since Vincenzo Galilei's 18: each fret takes 1/17.817 of what remains (common practice).
  it('lie where the rule of 17.817 puts them', () => {
    let remaining = 648;
    for (let fret = 1; fret <= 24; fret++) {
      remaining -= remaining / 17.817;
      expect(648 - fretAtMm(fret, 648)).toBeCloseTo(remaining, 1);
    }
    // The twelfth halves the string.
    expect(fretAtMm(12, 648)).toBeCloseTo(324, 6);
  });

  // Common practice: the harmonics of the low E over frets 12, 7, 5 and 9 are E3, B3, E4 and G#4.
  it.each([
    [12, 'E3'],
    [7, 'B3'],
    [5, 'E4'],
    [9, 'G#4'],
  ])('the harmonic over fret %i of the low E is %s', (fret, name) => {
    expect(40 + harmonicInterval(fret)).toBe(Note.midi(name));
  });
});
