import { describe, expect, it } from 'vitest';
import type { ConfirmedStrum } from '../confirmed';
import { decodeChords } from './chord-decoding';
import { BASS_NOTES, LOWEST_BASS, SHAPES, type ChordEvidence } from './chord-network';
import { CHORD_SHAPES } from './chord-shapes.data';
import { confirmChords } from './confirmed-chords';

const confirmedStrum = (timeS: number, marks: Partial<ConfirmedStrum> = {}): ConfirmedStrum => ({
  timeS,
  midi: [40, 47],
  palmMuted: false,
  dead: false,
  ...marks,
});

describe('confirmed chords', () => {
  const indexOf = (bass: number, notes: string): number =>
    (bass - LOWEST_BASS) * SHAPES + CHORD_SHAPES.findIndex((f) => f.notes?.join() === notes);
  /** Evidence for some classes; all others are far away. */
  const evidence = (shares: Readonly<Record<number, number>>): ChordEvidence => {
    const logProbabilities = new Float32Array(BASS_NOTES * SHAPES).fill(-14);
    for (const [index, share] of Object.entries(shares)) logProbabilities[Number(index)] = Math.log(share);
    return { logProbabilities, activation: () => new Float32Array(29) };
  };
  const threeStrings = (bass: number): ChordEvidence =>
    evidence({ [indexOf(bass, '0,7,12')]: 0.6, [indexOf(bass, '0,7')]: 0.4 });

  it('stay as they are confirmed, whatever is heard', () => {
    const [chord] = decodeChords(confirmChords([threeStrings(40)], [confirmedStrum(0, { midi: [45, 52] })]));
    expect(chord.midi).toEqual([45, 52]);
  });

  it('teach how many strings this player strikes, on other roots too', () => {
    const heard = [40, 43, 45, 47, 50].map(threeStrings);
    const annotations = [40, 43, 45, 47].map((bass) => confirmedStrum(0, { midi: [bass, bass + 7] }));
    const before = decodeChords(heard);
    const after = decodeChords(confirmChords(heard, [...annotations, null]));
    expect(before[4].midi).toEqual([50, 57, 62]);
    expect(after[4].midi).toEqual([50, 57]);
  });

  it('keep sets of notes that have no name', () => {
    const [chord] = decodeChords(
      confirmChords([threeStrings(40)], [confirmedStrum(0, { midi: [40, 47, 59] })]),
    );
    expect(chord.midi).toEqual([40, 47, 59]);
  });
});
