import { describe, expect, it } from 'vitest';
import { computeOnsetStrength } from '../onsets/onset-strength';
import { addClick, RATE } from '../test-sounds';
import { extendPulse, findPulses } from './pulse';

describe('pulses', () => {
  it('are none in silence', () => {
    expect(findPulses(computeOnsetStrength(new Float32Array(10 * RATE), RATE), 10)).toEqual([]);
  });

  it('hold the one that is clicked, on its clicks', () => {
    const out = new Float32Array(12 * RATE);
    for (let t = 0.4; t < 11.5; t += 0.25) addClick(out, t);
    const pulses = findPulses(computeOnsetStrength(out, RATE), 12);
    const clicked = pulses.find((p) => Math.abs(p.periodS - 0.25) < 0.005);
    const inside = clicked?.timesS.filter((t) => t > 1 && t < 11) ?? [];
    expect(inside.length).toBe(40);
    for (const t of inside)
      expect(Math.abs((t - 0.4) / 0.25 - Math.round((t - 0.4) / 0.25))).toBeLessThan(0.1);
  });

  it('goes on to both ends of the recording', () => {
    const pulse = extendPulse([2, 2.5, 3, 3.5], 6);
    expect(pulse[0]).toBeCloseTo(0.5, 9);
    expect(pulse.at(-1)).toBeCloseTo(5.5, 9);
  });
});
