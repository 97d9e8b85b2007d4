import { createRandom } from '../../units';
import { describe, expect, it } from 'vitest';
import { CONTINUITY_FEATURES, createPhaseContinuity } from './phase-continuity';

const RATE = 22050;
const INSTANT_S = 0.7;
/** A fifth on E2 with its first partials, Hz. */
const PARTIALS_HZ = [82.4, 164.8, 247.2, 123.5, 247, 370.5, 329.6, 494, 659.2, 988];

/** The chord rings all the time; from the instant on with the phases that `phaseOf` gives. */
function chord(phaseOf: (partial: number) => number): Float32Array {
  return Float32Array.from({ length: 1.2 * RATE }, (_, n) => {
    const isAfter = n >= INSTANT_S * RATE;
    return PARTIALS_HZ.reduce(
      (sum, hz, i) => sum + 0.05 * Math.sin((2 * Math.PI * hz * n) / RATE + (isAfter ? phaseOf(i) : 0)),
      0,
    );
  });
}

/** Noise that decays in a twentieth of a second, as loud as the chord. */
function withSnare(samples: Float32Array): Float32Array {
  const random = createRandom(4);
  const start = Math.round(INSTANT_S * RATE);
  return samples.map((v, n) =>
    n < start ? v : v + 0.3 * (2 * random() - 1) * Math.exp(-(n - start) / (0.05 * RATE)),
  );
}

function continuity(samples: Float32Array, timeS = INSTANT_S): Float32Array {
  const out = new Float32Array(CONTINUITY_FEATURES);
  createPhaseContinuity(RATE)(samples, timeS, out, 0);
  return out;
}

/** Windows of 46 ms, the bands from 60 to 250, 600 and 1500 Hz: behind the instant. */
const MIDDLE_WINDOW = [8, 10, 12];

describe('phase continuity', () => {
  it('is whole where a chord rings on, however loud a snare is over it', () => {
    const ringing = continuity(chord(() => 0));
    const drummed = continuity(withSnare(chord(() => 0)));
    for (const i of MIDDLE_WINDOW) {
      expect(ringing[i]).toBeGreaterThan(0.95);
      expect(drummed[i]).toBeGreaterThan(0.55);
    }
  });

  it('breaks where the strings are struck once more', () => {
    const random = createRandom(9);
    const phases = PARTIALS_HZ.map(() => 2 * Math.PI * random());
    const struck = continuity(chord((i) => phases[i]));
    const mean = MIDDLE_WINDOW.reduce((sum, i) => sum + struck[i], 0) / MIDDLE_WINDOW.length;
    expect(mean).toBeLessThan(0.4);
    // What came before the stroke was as even as ever.
    for (const i of MIDDLE_WINDOW) expect(struck[i + 1]).toBeGreaterThan(0.9);
  });

  it('does not depend on the level, and is nothing in silence and at the ends', () => {
    const samples = withSnare(chord(() => 0));
    const loud = continuity(samples);
    continuity(samples.map((v) => 0.1 * v)).forEach((v, i) => expect(v).toBeCloseTo(loud[i], 2));
    expect(continuity(new Float32Array(RATE)).every((v) => v === 0)).toBe(true);
    for (const timeS of [0, 1.19]) {
      expect(continuity(samples, timeS).every((v) => Number.isFinite(v) && Math.abs(v) <= 1.001)).toBe(true);
    }
  });
});
