import { describe, expect, it } from 'vitest';
import { panPlace } from './pan';
import { panorama, PANORAMA_PLACES } from './panorama';

const RATE = 44_100;

function tone(hz: number, pan: number): [Float32Array, Float32Array] {
  const angle = ((pan + 1) * Math.PI) / 4;
  const mono = Float32Array.from({ length: RATE }, (_, n) => 0.3 * Math.sin((2 * Math.PI * hz * n) / RATE));
  return [mono.map((v) => v * Math.cos(angle)), mono.map((v) => v * Math.sin(angle))];
}

/** Places that hold more than a twentieth of the energy, as -1 to 1. */
function places(shares: Float32Array): number[] {
  return [...shares].flatMap((share, i) => (share > 0.05 ? [(2 * i) / (PANORAMA_PLACES - 1) - 1] : []));
}

describe('the place of a source', () => {
  it.each([-1, -0.5, 0, 0.3, 1])('at %f is read from its levels', (pan) => {
    const angle = ((pan + 1) * Math.PI) / 4;
    expect(panPlace(Math.cos(angle) ** 2, Math.sin(angle) ** 2)).toBeCloseTo(pan, 6);
  });

  it('of silence is none', () => {
    expect(panPlace(0, 0)).toBeNull();
  });
});

describe('the panorama', () => {
  it('shows two guitars where they stand', () => {
    const [a, b] = [tone(330, -0.6), tone(500, 0.5)];
    const both = [0, 1].map((c) => a[c].map((v, n) => v + b[c][n]));
    const found = places(panorama(both, RATE, RATE / 2));
    expect(found).toHaveLength(2);
    expect(found[0]).toBeCloseTo(-0.6, 1);
    expect(found[1]).toBeCloseTo(0.5, 1);
  });

  it('adds up to one, and to nothing in silence or beyond the end', () => {
    const sum = (shares: Float32Array): number => shares.reduce((s, v) => s + v, 0);
    expect(sum(panorama(tone(330, 0), RATE, RATE / 2))).toBeCloseTo(1, 5);
    expect(sum(panorama(tone(330, 0), RATE, 9 * RATE))).toBe(0);
  });
});
