import { describe, expect, it } from 'vitest';
import { computeOnsetStrength } from '../onsets/onset-strength';
import { addClick, RATE } from '../test-sounds';
import { longestStretch, soundingStretches } from './stretches';

function clicksAt(timesS: readonly number[], seconds: number): Float32Array {
  const out = new Float32Array(seconds * RATE);
  for (const timeS of timesS) addClick(out, timeS);
  return out;
}
const every = (stepS: number, fromS: number, toS: number): number[] =>
  Array.from({ length: Math.floor((toS - fromS) / stepS) }, (_, i) => fromS + i * stepS);

describe('stretches of sound', () => {
  it('end where nothing is struck for long, and not at a rest of a bar', () => {
    const out = clicksAt([...every(0.5, 1, 8), ...every(0.5, 10, 14), ...every(0.5, 19.2, 24)], 26);
    const stretches = soundingStretches(computeOnsetStrength(out, RATE));
    expect(stretches).toHaveLength(2);
    expect(stretches[0].startS).toBeCloseTo(1, 1);
    expect(stretches[0].endS).toBeCloseTo(13.5, 1);
    expect(stretches[1].startS).toBeCloseTo(19.2, 1);
    expect(longestStretch(stretches)).toEqual(stretches[0]);
  });

  it('are none in silence', () => {
    expect(soundingStretches(computeOnsetStrength(new Float32Array(5 * RATE), RATE))).toEqual([]);
  });
});
