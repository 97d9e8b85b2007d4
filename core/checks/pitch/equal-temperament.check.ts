/** Pitch against published values. */
import { describe, expect, it } from 'vitest';
import { Note } from 'tonal';
import { A4_HZ, a4OfOffset, hzToMidi, midiToHz } from '../../src/theory';

describe('standard tuning frequency', () => {
  it('is 440 Hz for A4 (ISO 16:1975, clause 2)', () => {
    expect(A4_HZ).toBe(440);
    expect(midiToHz(69)).toBe(440);
  });
});

describe('MIDI note numbers', () => {
  // MIDI 1.0 Detailed Specification 4.2, note number table: 60 is middle C; scientific pitch calls it C4.
  // Frequencies of twelve-tone equal temperament at A4 = 440 Hz as tabulated in Rossing, "The Science of Sound",
  // table of frequencies of notes (values from memory, rounded there to 0.01 Hz).
  it.each([
    ['C4', 60, 261.63],
    ['E2', 40, 82.41],
    ['A2', 45, 110.0],
    ['D3', 50, 146.83],
    ['G3', 55, 196.0],
    ['B3', 59, 246.94],
    ['E4', 64, 329.63],
    ['C8', 108, 4186.01],
    ['A0', 21, 27.5],
  ])('%s is %i and %f Hz', (name, midi, hz) => {
    expect(midiToHz(midi)).toBeCloseTo(hz, 1);
    expect(Math.round(hzToMidi(hz))).toBe(midi);
    // General-purpose reference library: tonal 6.4.2.
    expect(Note.midi(name)).toBe(midi);
    expect(Note.freq(name)).toBeCloseTo(midiToHz(midi), 6);
  });

  it('has 100 cents to the semitone and 1200 to the octave (by definition, Ellis 1885)', () => {
    expect(a4OfOffset(1200)).toBeCloseTo(880, 9);
    expect(hzToMidi(a4OfOffset(100))).toBeCloseTo(70, 9);
  });
});
