import { describe, expect, it } from 'vitest';
import { createPitchChange } from './change-pitch';

const RATE = 44_100;
const sine = (freqHz: number, length: number): Float32Array =>
  Float32Array.from({ length }, (_, n) => Math.sin((2 * Math.PI * freqHz * n) / RATE));

/** The whole of a sound, in one go or in pieces. */
function changed(sound: Float32Array, ratio: number, piece = Infinity): Float32Array {
  const change = createPitchChange(ratio);
  const out = new Float32Array(change.lengthOf(sound.length));
  for (let from = 0; from < out.length; from += piece) {
    const to = Math.min(out.length, from + piece);
    const source = change.sourceOf(from, to);
    const part = new Float32Array(source.to - source.from);
    for (let n = source.from; n < source.to; n++) part[n - source.from] = sound[n] ?? 0;
    out.set(change.apply(part, from, to), from);
  }
  return out;
}

describe('a change of pitch', () => {
  it.each([
    [82.41, -38],
    [1100, -38],
    [220, 200],
    [220, 1200],
    [220, -1200],
    [5000, 50],
  ])('%f Hz by %i cents is that sine, to a thousandth', (freqHz, cents) => {
    const ratio = 2 ** (cents / 1200);
    const out = changed(sine(freqHz, 20_000), ratio);
    const wanted = sine(freqHz * ratio, out.length);
    const worst = out
      .subarray(200, out.length - 200)
      .reduce((w, v, n) => Math.max(w, Math.abs(v - wanted[n + 200])), 0);
    expect(worst).toBeLessThan(0.003);
  });

  it('takes away what would fold back over the half rate', () => {
    const out = changed(sine(15_000, 20_000), 2);
    expect(Math.max(...out.subarray(200, out.length - 200).map(Math.abs))).toBeLessThan(0.01);
  });

  it('is the same whichever way it is cut, and as long as it is read', () => {
    const sound = sine(330, 5000);
    expect(changed(sound, 1.0222, 700)).toEqual(changed(sound, 1.0222));
    expect(changed(sound, 2)).toHaveLength(2500);
  });

  it('refuses a ratio that is none', () => {
    expect(() => createPitchChange(0)).toThrow(RangeError);
  });
});
