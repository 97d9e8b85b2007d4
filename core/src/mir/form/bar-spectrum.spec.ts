import { describe, expect, it } from 'vitest';
import { computeBarSpectra, spectralDistance } from './bar-spectrum';

const RATE = 22050;
const tone = (hz: number, seconds: number, level = 0.1): number[] =>
  Array.from({ length: RATE * seconds }, (_, n) => level * Math.sin((2 * Math.PI * hz * n) / RATE));
const spectraOf = (samples: number[]): Float32Array[] =>
  computeBarSpectra(Float32Array.from(samples), RATE, [0, 2], 4);

describe('the spectrum of a bar', () => {
  it('is the same where the same sounds', () => {
    const [one, other] = spectraOf([...tone(110, 2), ...tone(110, 2)]);
    expect(spectralDistance([one], [other])).toBeLessThan(0.5);
  });

  it('rises by the decibels that the sound rises by', () => {
    const [soft, loud] = spectraOf([...tone(110, 2), ...tone(110, 2, 0.2)]);
    const loudest = soft.indexOf(Math.max(...soft));
    expect(loud[loudest] - soft[loudest]).toBeCloseTo(20 * Math.log10(2), 0);
  });

  it('differs in the bands in which something else is played', () => {
    const cymbal = tone(6000, 2).map((v, n) => v + 0.1 * Math.sin((2 * Math.PI * 110 * n) / RATE));
    const [alone, band] = spectraOf([...tone(110, 2), ...cymbal]);
    const change = Array.from(band, (v, b) => v - alone[b]);
    expect(change.indexOf(Math.max(...change))).toBeGreaterThan(change.length / 2);
    expect(spectralDistance([alone], [band])).toBeGreaterThan(4);
  });

  it('is finite in silence', () => {
    for (const bar of spectraOf(new Array<number>(4 * RATE).fill(0))) {
      expect(Array.from(bar).every(Number.isFinite)).toBe(true);
    }
  });
});
