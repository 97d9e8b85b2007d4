/** Windows, filters and what distortion does, against published values and closed forms. */
import { describe, expect, it } from 'vitest';
import { applyBiquad, spectrumAnalyserOf, hannWindow, highPass, lowPass, peaking } from '../../src/dsp';
import { midiToHz } from '../../src/theory';

const RATE = 22050;

describe('the Hann window (Harris 1978, Proc. IEEE 66(1), table 1, from memory)', () => {
  const window = hannWindow(4096);
  const sum = window.reduce((s, v) => s + v, 0);
  const squares = window.reduce((s, v) => s + v * v, 0);

  it('has a coherent gain of 0.50', () => {
    expect(sum / window.length).toBeCloseTo(0.5, 3);
  });

  it('has an equivalent noise bandwidth of 1.50 bins', () => {
    expect((window.length * squares) / sum ** 2).toBeCloseTo(1.5, 2);
  });

  it('loses 1.42 dB half-way between two bins', () => {
    const size = 4096;
    const analyser = spectrumAnalyserOf(size);
    const magnitudes = new Float32Array(analyser.bins);
    const tone = (bin: number): Float32Array =>
      Float32Array.from({ length: size }, (_, n) => Math.sin((2 * Math.PI * bin * n) / size));
    analyser.magnitudes(tone(200), 0, magnitudes);
    expect(magnitudes[200]).toBeCloseTo(1, 3);
    analyser.magnitudes(tone(200.5), 0, magnitudes);
    expect(20 * Math.log10(magnitudes[200])).toBeCloseTo(-1.42, 1);
  });
});

describe('filters (closed forms of the cookbook, Bristow-Johnson, W3C Note 2021)', () => {
  function gainDb(filter: Parameters<typeof applyBiquad>[1], freqHz: number): number {
    const tone = Float32Array.from({ length: RATE }, (_, n) => Math.sin((2 * Math.PI * freqHz * n) / RATE));
    const out = applyBiquad(tone, filter).subarray(RATE / 2);
    return 20 * Math.log10(Math.sqrt((2 * out.reduce((s, v) => s + v * v, 0)) / out.length));
  }

  it.each([
    ['low pass', lowPass(1000, RATE)],
    ['high pass', highPass(1000, RATE)],
  ])('a Butterworth %s is 3.01 dB down at its edge', (_, filter) => {
    expect(gainDb(filter, 1000)).toBeCloseTo(-3.01, 1);
  });

  it('a peak has its gain at its centre and none far away', () => {
    const filter = peaking(800, RATE, 1, 6);
    expect(gainDb(filter, 800)).toBeCloseTo(6, 1);
    expect(Math.abs(gainDb(filter, 30))).toBeLessThan(0.1);
  });
});

/**
 * Clipping a sum makes sums and differences of its frequencies. Root f and fifth 3f/2: the difference is f/2, an octave
 * under the root, and nobody plays it (arithmetic; why power chords sound full, common knowledge of players).
 */
describe('a distorted fifth', () => {
  const size = 16384;
  const root = midiToHz(52);
  const tone = (n: number): number =>
    0.4 * Math.sin((2 * Math.PI * root * n) / RATE) + 0.4 * Math.sin((2 * Math.PI * 1.5 * root * n) / RATE);
  const level = (samples: Float32Array, freqHz: number): number => {
    const analyser = spectrumAnalyserOf(size);
    const magnitudes = new Float32Array(analyser.bins);
    analyser.magnitudes(samples, 0, magnitudes);
    const bin = Math.round((freqHz * size) / RATE);
    return 20 * Math.log10(Math.max(...magnitudes.subarray(bin - 1, bin + 2)));
  };
  const clean = Float32Array.from({ length: size }, (_, n) => tone(n));
  const clipped = clean.map((v) => Math.tanh(4 * v + 0.3));

  it('sounds an octave under its root, and at the sum of both', () => {
    expect(level(clipped, root / 2)).toBeGreaterThan(level(clipped, root) - 20);
    expect(level(clipped, 2.5 * root)).toBeGreaterThan(level(clipped, root) - 20);
  });

  it('does not when it is clean', () => {
    expect(level(clean, root / 2)).toBeLessThan(level(clean, root) - 60);
  });
});
