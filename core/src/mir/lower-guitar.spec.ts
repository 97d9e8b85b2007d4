import { describe, expect, it } from 'vitest';
import { createEvidence } from './chords/chord-evidence';
import { LOWEST_BASS, SHAPES, type ChordEvidence } from './chords/chord-network';
import { CHORD_SHAPES } from './chords/chord-shapes.data';
import chordWeights from './chords/chords.json';
import { findLowerGuitar } from './lower-guitar';
import { splitStereo } from './stereo';
import { addChord, RATE, strumOf } from './test-sounds';

const SECONDS = 10;
const ROOTS = [40, 43];
const rootOf = (i: number): number => ROOTS[i % ROOTS.length];

/** A power chord on two strings each half second through a soft clipper, so that it is a guitar's. */
function part(up: number, lateS = 0): Float32Array {
  const out = new Float32Array(SECONDS * RATE);
  for (let i = 0; 0.5 * i < SECONDS - 1; i++) {
    addChord(out, 0.5 * i + 0.2 + lateS, 0.48, [rootOf(i) + up, rootOf(i) + up + 7]);
  }
  return out.map((v) => Math.tanh(5 * v));
}

const strums = Array.from({ length: 18 }, (_, i) => strumOf(0.2 + 0.5 * i, 0.68 + 0.5 * i, rootOf(i)));
const stereo = (
  left: Float32Array,
  right: Float32Array,
): { channels: Float32Array[]; sampleRate: number } => ({
  channels: [left, right],
  sampleRate: RATE,
});

/** Log-odds of the third string over two, on this lowest note. */
function oddsOfThree({ logProbabilities }: ChordEvidence, bass: number): number {
  const at = (notes: string): number =>
    logProbabilities[
      (bass - LOWEST_BASS) * SHAPES + CHORD_SHAPES.findIndex((s) => s.notes?.join() === notes)
    ];
  return at('0,7,12') - at('0,7');
}

describe('the lower of two guitars', () => {
  const apart = stereo(part(0), part(12, 0.01));

  it('is looked for on both sides, and not found in one channel, in takes that double each other, in too few chords', () => {
    const turned = stereo(apart.channels[1], apart.channels[0]);
    expect([apart, turned].map((signal) => findLowerGuitar(signal, strums, 0) !== null)).toEqual([
      true,
      true,
    ]);
    expect(findLowerGuitar(stereo(part(0), part(0, 0.01)), strums, 0)).toBeNull();
    expect(findLowerGuitar({ channels: [apart.channels[0]], sampleRate: RATE }, strums, 0)).toBeNull();
    expect(findLowerGuitar(apart, strums.slice(0, 4), 0)).toBeNull();
    // What a user has confirmed may lie lower than the networks hear: it is not asked about.
    const tooLow = strums.map((s) => ({ ...s, midi: s.midi.map((note) => note - 24) }));
    expect(findLowerGuitar(apart, tooLow, 0)).toBeNull();
  });

  it('tells on how many strings it plays, whatever the higher one adds', () => {
    const lower = findLowerGuitar(apart, strums, 0)!;
    const together = createEvidence(splitStereo(apart), RATE, 0, chordWeights);
    const alone = createEvidence({ mid: apart.channels[0], side: null }, RATE, 0, chordWeights);
    for (const strum of strums) {
      const both = together(strum);
      const muted = lower(both, strum, true);
      const bass = strum.midi[0];
      expect(oddsOfThree(muted, bass)).toBeCloseTo(oddsOfThree(alone(strum), bass), 3);
      expect(oddsOfThree(muted, bass)).toBeLessThan(oddsOfThree(both, bass));
      // Where strings ring the higher guitar leaves more of itself.
      expect(oddsOfThree(lower(both, strum, false), bass)).toBeLessThan(oddsOfThree(muted, bass));
      const sum = muted.logProbabilities.reduce((all, log) => all + Math.exp(log), 0);
      expect(sum).toBeCloseTo(1, 3);
    }
  });
});
