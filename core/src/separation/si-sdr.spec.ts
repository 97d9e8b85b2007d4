import { describe, expect, it } from 'vitest';
import { siSdrDb } from './si-sdr';

/** The properties that Le Roux, Wisdom, Erdogan and Hershey (2019), "SDR - half-baked or well done?", give for the measure. */
describe('the scale-invariant signal-to-distortion ratio', () => {
  const tone = (cycles: number): Float32Array =>
    Float32Array.from({ length: 1000 }, (_, n) => Math.sin((2 * Math.PI * cycles * n) / 1000));
  const sum = (a: Float32Array, b: Float32Array, share: number): Float32Array =>
    a.map((v, n) => v + share * b[n]);

  it('is the ratio of powers where the noise is orthogonal: a tenth of the amplitude is 20 dB', () => {
    expect(siSdrDb([tone(5)], [sum(tone(5), tone(8), 0.1)])).toBeCloseTo(20, 4);
    expect(siSdrDb([tone(5)], [sum(tone(5), tone(8), 1)])).toBeCloseTo(0, 4);
  });

  it('does not change with the level of the estimate, nor with that of the reference', () => {
    const estimate = sum(tone(5), tone(8), 0.3);
    const ratio = siSdrDb([tone(5)], [estimate])!;
    expect(siSdrDb([tone(5)], [estimate.map((v) => 0.01 * v)])).toBeCloseTo(ratio, 3);
    expect(siSdrDb([tone(5).map((v) => 7 * v)], [estimate])).toBeCloseTo(ratio, 3);
  });

  it('is no better for an estimate that is turned down: the plain ratio is cheated by that', () => {
    // A mix of two equal tones: the plain ratio is 0 dB, and 3 dB for half of the mix.
    const mix = sum(tone(5), tone(8), 1);
    expect(siSdrDb([tone(5)], [mix.map((v) => v / 2)])).toBeCloseTo(0, 4);
  });

  it('falls without end for what has nothing of the reference, and has no value for a silent one', () => {
    expect(siSdrDb([tone(5)], [tone(8)])).toBeLessThan(-100);
    expect(siSdrDb([new Float32Array(10)], [new Float32Array(10).fill(1)])).toBeNull();
  });

  it('takes channels as one long sound, and refuses those of other lengths', () => {
    const [left, right] = [tone(5), tone(8)];
    const spoiled = sum(left, tone(11), 0.1);
    expect(siSdrDb([left, right], [spoiled, right])).toBeCloseTo(23.01, 1);
    expect(() => siSdrDb([left], [left, right])).toThrow(RangeError);
  });
});
