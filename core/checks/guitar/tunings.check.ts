/** Tunings and power chords against facts of the trade. */
import { describe, expect, it } from 'vitest';
import { Note } from 'tonal';
import { findVoicings, soundingNotes, TUNINGS } from '../../src/guitar';

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
  const standard = { name: 'standard', stringsMidi: TUNINGS[0].strings, capo: 0 };
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
