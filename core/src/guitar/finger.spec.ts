import { describe, expect, it } from 'vitest';
import { candidateVoicings, chooseVoicings, writtenVoicings } from './finger';
import { STANDARD_TUNING } from './tuning';

const layersOf = (...chords: readonly (readonly number[])[]) =>
  chords.map((notes) => candidateVoicings(notes, STANDARD_TUNING));

describe('frets for notes', () => {
  it('stay where the hand is, though a chord alone would be played elsewhere', () => {
    // E5 alone is played at the seventh fret; between chords at the tenth the twelfth is nearer.
    const [alone] = chooseVoicings(layersOf([52, 59]));
    const [, between] = chooseVoicings(layersOf([55, 62], [52, 59], [55, 62]));
    expect(alone?.frets[0]).toEqual({ string: 5, fret: 7 });
    expect(between?.frets[0]).toEqual({ string: 6, fret: 12 });
  });

  it('lie high on the neck for what is written there, and for nothing that is heard', () => {
    // Bb5 on the first string: the eighteenth fret, of 24.
    expect(candidateVoicings([82], STANDARD_TUNING)).toEqual([]);
    expect(writtenVoicings([82], STANDARD_TUNING)[0].frets).toEqual([{ string: 1, fret: 18 }]);
    expect(writtenVoicings([40, 47], STANDARD_TUNING)).toEqual(candidateVoicings([40, 47], STANDARD_TUNING));
    expect(writtenVoicings([89], STANDARD_TUNING)).toEqual([]);
  });

  it('are none for silence and for what the tuning can not play, and the others keep their place', () => {
    const chosen = chooseVoicings(layersOf([40, 47], [], [30], [43, 50]));
    expect(chosen.map((v) => v?.frets.map((f) => f.fret) ?? null)).toEqual([[0, 2], null, null, [3, 5]]);
  });
});
