/**
 * K-weighting and integrated loudness against the values that ITU-R BS.1770-4 (tables 1 and 2) and EBU Tech 3341 (2016,
 * "Loudness metering: EBU mode", table 1, cases 1 to 4) print. Copied from memory of these documents.
 */
import { describe, expect, it } from 'vitest';
import { integratedLoudness, kWeighting } from '../../src/dsp';

const RATE = 48_000;

/** A sine of 1 kHz, its peak in dBFS, for each stretch of time. */
function tone(parts: readonly (readonly [dbfs: number, seconds: number])[], hz = 1000): Float32Array {
  const out: number[] = [];
  for (const [dbfs, seconds] of parts) {
    const end = out.length + seconds * RATE;
    for (let n = out.length; n < end; n++) {
      out.push(10 ** (dbfs / 20) * Math.sin((2 * Math.PI * hz * n) / RATE));
    }
  }
  return Float32Array.from(out);
}

describe('K-weighting at 48 kHz', () => {
  const [shelf, cut] = kWeighting(RATE);

  it('has the coefficients of table 1, a high shelf', () => {
    expect(shelf.b0).toBeCloseTo(1.53512485958697, 5);
    expect(shelf.b1).toBeCloseTo(-2.69169618940638, 5);
    expect(shelf.b2).toBeCloseTo(1.19839281085285, 5);
    expect(shelf.a1).toBeCloseTo(-1.69065929318241, 5);
    expect(shelf.a2).toBeCloseTo(0.73248077421585, 5);
  });

  it('has the coefficients of table 2, a high-pass', () => {
    expect([cut.b0, cut.b1, cut.b2]).toEqual([1, -2, 1]);
    expect(cut.a1).toBeCloseTo(-1.99004745483398, 6);
    expect(cut.a2).toBeCloseTo(0.99007225036621, 6);
  });
});

describe('integrated loudness', () => {
  it('of a full-scale 997 Hz sine in one channel is -3.01 LUFS', () => {
    expect(integratedLoudness([tone([[0, 5]], 997)], RATE)).toBeCloseTo(-3.01, 1);
  });

  it.each([
    ['case 1', [[-23, 20]], -23],
    ['case 2', [[-33, 20]], -33],
    [
      'case 3',
      [
        [-36, 10],
        [-23, 60],
        [-36, 10],
      ],
      -23,
    ],
    [
      'case 4',
      [
        [-72, 10],
        [-36, 10],
        [-23, 60],
        [-36, 10],
        [-72, 10],
      ],
      -23,
    ],
  ] as const)('of EBU Tech 3341 %s in both channels is right to 0.1 LU', (_, parts, wanted) => {
    const channel = tone(parts);
    const measured = integratedLoudness([channel, channel], RATE);
    expect(Math.abs((measured ?? 0) - wanted)).toBeLessThanOrEqual(0.1);
  });

  it('of silence is none', () => {
    expect(integratedLoudness([new Float32Array(RATE)], RATE)).toBeNull();
  });
});
