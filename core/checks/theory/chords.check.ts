/** Chord kinds, spelling and counts against a general-purpose theory library (tonal 6.4.2) and common practice. */
import { describe, expect, it } from 'vitest';
import { Chord, Interval, Key, Note } from 'tonal';
import { countSyllable } from '../../src/riff';
import { CHORD_KINDS, identifyChord, keyOn, nameNotes, spellPitchClass } from '../../src/theory';

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

describe('notes without a chord name are told by their degrees', () => {
  // tonal: intervals 6m, 2m, 3M above the root; the words are theirs (flat sixth = minor sixth).
  it.each([
    [['E2', 'C3'], 'E(b6)', 'E with the flat sixth, no third and no fifth'],
    [['E2', 'B2', 'C3'], 'E(b6)', 'E with the flat sixth, no third'],
    [['A2', 'C#3'], 'A(3)', 'A with the third, no fifth'],
    [['E2', 'B2', 'F3'], 'E(b9)', 'E with the flat ninth, no third'],
    [['E2', 'G3', 'D4'], 'E(m,7)', 'E with the minor third and seventh, no fifth'],
  ])('%j is %s', (names, symbol, words) => {
    expect(
      nameNotes(
        names.map((n) => Note.midi(n) ?? 0),
        { tonic: 'E', mode: 'minor' },
      ),
    ).toEqual({ symbol, words });
  });

  it('names what has one, with the bass that is another', () => {
    expect(nameNotes([45, 50], null)).toEqual({ symbol: 'D5/A', words: 'power chord, A in the bass' });
    expect(nameNotes([], null)).toEqual({ symbol: '', words: '' });
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
