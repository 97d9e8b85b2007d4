import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import { addChord, RATE } from '../test-sounds';
import { findOnsetCandidates } from './onset-candidates';
import { computeOnsetStrength } from './onset-strength';

describe('onset candidates', () => {
  it('hold every strum within 10 ms', () => {
    const out = new Float32Array(5 * RATE);
    const times = [0.5, 1.0, 1.25, 1.5, 2.4, 3.3];
    for (const [i, t] of times.entries())
      addChord(out, t, (times[i + 1] ?? 4.5) - t, [40 + (i % 3), 47 + (i % 3)]);
    const found = findOnsetCandidates([out], RATE, computeOnsetStrength(out, RATE));
    for (const time of times) expect(found.some((t) => Math.abs(t - time) < 0.01)).toBe(true);
    // Candidates may be false, the classifier decides; but a clean riff has hardly more of them than strums and their ends.
    expect(found.length).toBeLessThanOrEqual(2 * times.length);
  });

  it('are the same instants when the recording begins a little later', () => {
    const random = createRandom(8);
    const out = new Float32Array(4 * RATE).map(() => 0.02 * (random() - 0.5));
    for (let k = 0; k < 20; k++) addChord(out, 0.3 + 0.17 * k, 0.17, [40 + (k % 5), 47 + (k % 5)]);
    const instants = (samples: Float32Array): number[] =>
      findOnsetCandidates([samples], RATE, computeOnsetStrength(samples, RATE));
    const whole = instants(out);
    // Neither a whole number of frames nor of milliseconds.
    const later = instants(out.subarray(1333)).map((t) => t + 1333 / RATE);
    const kept = whole.filter((t) => later.some((u) => Math.abs(t - u) < 0.002));
    expect(whole.length).toBeGreaterThan(20);
    expect(kept.length / whole.length).toBeGreaterThan(0.85);
  });

  it('are none in silence', () => {
    const silence = new Float32Array(2 * RATE);
    expect(findOnsetCandidates([silence], RATE, computeOnsetStrength(silence, RATE))).toEqual([]);
  });
});
