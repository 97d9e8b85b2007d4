import { describe, expect, it } from 'vitest';
import { chordName, hzToMidi, identifyChord, keyOn, spellingKey, midiToHz, spellPitchClass } from './index';

describe('pitch', () => {
  it('goes from note to frequency and back', () => {
    for (let midi = 21; midi <= 108; midi += 0.5) expect(hzToMidi(midiToHz(midi))).toBeCloseTo(midi, 9);
  });

  it('follows another A4', () => {
    expect(midiToHz(69, 432)).toBe(432);
    expect(hzToMidi(432, 432)).toBe(69);
  });
});

describe('identifyChord', () => {
  it.each([
    ['power chord', [40, 47], 4, '5', 4],
    ['power chord with octave', [43, 50, 55], 7, '5', 7],
    ['fourth read as a power chord with its fifth in the bass', [45, 50], 2, '5', 9],
    ['flat five', [40, 46], 4, 'b5', 4],
    ['octave', [45, 57], 9, 'oct', 9],
    ['single note', [45], 9, 'single', 9],
    ['single note twice', [45, 45], 9, 'single', 9],
    ['sus2', [45, 52, 57, 59], 9, 'sus2', 9],
    ['sus4', [45, 52, 57, 62], 9, 'sus4', 9],
    ['major', [43, 47, 50, 55, 59, 67], 7, 'maj', 7],
    ['minor', [45, 52, 57, 60, 64], 9, 'min', 9],
    ['major with the fifth in the bass', [43, 48, 52], 0, 'maj', 7],
    ['a second is no chord of these', [40, 42], 4, 'other', 4],
  ] as const)('%s', (_, notes, rootPc, quality, bassPc) => {
    expect(identifyChord(notes)).toEqual({ rootPc, quality, bassPc });
  });

  it('finds nothing in nothing', () => {
    expect(identifyChord([])).toBeNull();
  });
});

describe('spelling', () => {
  const eFlat = { tonic: 'Eb', mode: 'major' } as const;
  const e = { tonic: 'E', mode: 'minor' } as const;

  it.each([
    [3, eFlat, 'Eb'],
    [3, e, 'D#'],
    [10, eFlat, 'Bb'],
    [6, e, 'F#'],
    [1, eFlat, 'Db'],
    [3, null, 'D#'],
  ] as const)('pitch class %i in %j is %s', (pitchClass, key, name) => {
    expect(spellPitchClass(pitchClass, key)).toBe(name);
  });

  it.each([
    [3, 'major', 'Eb'],
    [1, 'minor', 'C#'],
    [10, 'minor', 'Bb'],
    [6, 'major', 'F#'],
    [8, 'major', 'Ab'],
  ] as const)('the key on %i %s is written %s', (pitchClass, mode, tonic) => {
    expect(keyOn(pitchClass, mode).tonic).toBe(tonic);
  });

  it.each([
    ['key', 'F#'],
    ['sharps', 'F#'],
    ['flats', 'Gb'],
  ] as const)('by %s calls the sixth semitone %s in E minor', (spelling, name) => {
    expect(spellPitchClass(6, spellingKey(e, spelling))).toBe(name);
  });

  it('names chords with their bass', () => {
    expect(chordName({ rootPc: 2, quality: '5', bassPc: 9 }, e)).toBe('D5/A');
    expect(chordName({ rootPc: 10, quality: 'sus4', bassPc: 10 }, eFlat)).toBe('Bbsus4');
    expect(chordName({ rootPc: 4, quality: 'other', bassPc: 4 }, e)).toBe('E?');
  });
});
