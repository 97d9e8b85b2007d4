/** Chord kinds, spelling and counts against a general-purpose theory library (tonal 6.4.2) and common practice. */
import { describe, expect, it } from 'vitest';
import { Chord, Interval, Key, Note } from 'tonal';
import { countSyllable } from '../../src/riff';
import { CHORD_KINDS, identifyChord, keyOn, spellPitchClass } from '../../src/theory';

describe('chord kinds', () => {
  it.each([
    ['5', '5'],
    ['sus2', 'sus2'],
    ['sus4', 'sus4'],
    ['maj', 'M'],
    ['min', 'm'],
  ])('%s has the intervals that tonal gives', (quality, symbol) => {
    const kind = CHORD_KINDS.find((k) => k.quality === quality);
    const semitones = Chord.get(`C${symbol}`).intervals.map((i) => (Interval.semitones(i) ?? 0) % 12);
    expect([...(kind?.intervals ?? [])].sort((a, b) => a - b)).toEqual([...semitones].sort((a, b) => a - b));
  });

  it('a flat five is six semitones: the diminished fifth (tonal: 5d)', () => {
    expect(Interval.semitones('5d')).toBe(CHORD_KINDS.find((k) => k.quality === 'b5')?.intervals[1]);
  });

  it.each(['C', 'F#', 'Bb', 'E'])('major and minor triads on %s are named as tonal builds them', (root) => {
    for (const [symbol, quality] of [
      ['M', 'maj'],
      ['m', 'min'],
    ]) {
      const notes = Chord.get(`${root}${symbol}`).intervals.map(
        (i) => Note.midi(Note.transpose(`${root}3`, i)) ?? 0,
      );
      expect(identifyChord(notes)).toMatchObject({ rootPc: Note.chroma(root), quality });
    }
  });
});

describe('keys', () => {
  // Circle of fifths: signatures with the fewest accidentals are the usual ones (common practice).
  it('spells every scale note of every usual key as the signature does', () => {
    for (let pc = 0; pc < 12; pc++) {
      const key = keyOn(pc, 'major');
      for (const name of Key.majorKey(key.tonic).scale) {
        expect(spellPitchClass(Note.chroma(name) ?? -1, key)).toBe(name);
      }
    }
  });
});

describe('counts (English counting syllables, common practice)', () => {
  it('counts sixteenths 1 e & a and eighths 1 & 2 &', () => {
    const bar = Array.from({ length: 16 }, (_, i) => countSyllable(i * 240, 4));
    expect(bar.join(' ')).toBe('1 e & a 2 e & a 3 e & a 4 e & a');
    expect(bar.filter((_, i) => i % 2 === 0).join(' ')).toBe('1 & 2 & 3 & 4 &');
  });
});
