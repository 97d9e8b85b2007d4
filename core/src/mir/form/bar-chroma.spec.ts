import { describe, expect, it } from 'vitest';
import { chromaSimilarity, computeBarChroma } from './bar-chroma';
import { addChord } from '../test-sounds';

const RATE = 22050;
const BAR_S = 2;

/** A bar each: chords as they follow, equally long, by a guitar; `offsetCents` of the whole. */
function recording(bars: readonly (readonly (readonly number[])[])[]): Float32Array {
  const out = new Float32Array(Math.round(bars.length * BAR_S * RATE));
  bars.forEach((chords, b) =>
    chords.forEach((midi, i) => {
      const lengthS = BAR_S / chords.length;
      addChord(out, b * BAR_S + i * lengthS, lengthS, midi);
    }),
  );
  return out;
}

const hear = (bars: Parameters<typeof recording>[0], offsetCents = 0): Float32Array[] =>
  computeBarChroma(
    recording(bars),
    RATE,
    offsetCents,
    bars.map((_, b) => b * BAR_S),
    bars.length * BAR_S,
  );

const E_G = [
  [52, 59],
  [55, 62],
];
const A_C = [
  [57, 64],
  [60, 67],
];
const up = (chords: readonly (readonly number[])[], by: number): number[][] =>
  chords.map((midi) => midi.map((n) => n + by));

describe('what sounds in a bar', () => {
  it('is the same when the same is played, and not when other chords are', () => {
    const [one, other, again] = hear([E_G, A_C, E_G, A_C]);
    expect(chromaSimilarity(one, again, 0)).toBeGreaterThan(0.9);
    expect(chromaSimilarity(one, other, 0)).toBeLessThan(0.3);
  });

  it('is the same moved up the neck, at that height alone', () => {
    const [one, , moved] = hear([E_G, A_C, up(E_G, 2), A_C]);
    const byShift = Array.from({ length: 12 }, (_, shift) => chromaSimilarity(one, moved, shift));
    expect(byShift.indexOf(Math.max(...byShift))).toBe(2);
    expect(byShift[2]).toBeGreaterThan(0.8);
  });

  it('tells the order of chords', () => {
    const [one, turned] = hear([E_G, [...E_G].reverse(), A_C]);
    expect(chromaSimilarity(one, turned, 0)).toBeLessThan(0.5);
  });

  it('is of the notes as the recording is tuned', () => {
    const [a440, semitoneUp] = [hear([E_G, A_C]), hear([E_G, A_C], 100)];
    expect(chromaSimilarity(a440[0], semitoneUp[0], 11)).toBeGreaterThan(0.9);
    expect(chromaSimilarity(a440[0], semitoneUp[0], 0)).toBeLessThan(0.5);
  });

  it('is like nothing where nothing sounds', () => {
    const [one, silent, silentToo] = hear([E_G, [[]], [[]]]);
    // Its first place still hears the end of the bar before.
    expect(Math.abs(chromaSimilarity(one, silent, 0))).toBeLessThan(0.05);
    expect(chromaSimilarity(silent, silentToo, 0)).toBe(0);
    for (const bar of hear([[[]], [[]]])) for (const v of bar) expect(v).toBe(0);
  });
});
