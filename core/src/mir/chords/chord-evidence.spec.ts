import { describe, expect, it } from 'vitest';
import { addChord, RATE } from '../test-sounds';
import { decodeChords } from './chord-decoding';
import { createEvidence } from './chord-evidence';
import chordWeights from './chords.json';

describe('chords', () => {
  const chords = [
    [40, 47, 52],
    [45, 52],
    [43, 50, 55],
    [40, 46, 52],
  ];

  it('are named from overdriven sounds by root and lowest note', () => {
    const strings = new Float32Array(6 * RATE);
    chords.forEach((notes, i) => addChord(strings, i, 0.95, notes));
    const out = strings.map((v) => Math.tanh(6 * v + 0.1));
    const evidenceOf = createEvidence({ mid: out, side: null }, RATE, 0, chordWeights);
    const evidence = chords.map((_, i) => evidenceOf({ timeS: i, endS: i + 0.95 }));
    expect(decodeChords(evidence).map((c) => c.bass)).toEqual([40, 45, 43, 40]);
    // What was read once is remembered, not read again.
    expect(evidenceOf({ timeS: 0, endS: 0.95 })).toBe(evidence[0]);
  });
});
