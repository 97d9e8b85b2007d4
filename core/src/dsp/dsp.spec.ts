import { describe, expect, it } from 'vitest';
import { applyBiquad, highPass, lowPass, peaking } from './biquad';
import { PeakEnvelope } from './envelope';
import { createLogFilterbank } from './log-filterbank';
import { parabolicPeak, pickPeaks } from './peaks';
import { spectrumAnalyserOf } from './spectrum';
import { cosineSimilarity, median, quantile } from './statistics';
import { hannWindow } from './window';

const RATES = [22050, 44100, 48000];

function sine(freqHz: number, sampleRate: number, seconds: number, level = 1): Float32Array {
  return Float32Array.from(
    { length: Math.round(seconds * sampleRate) },
    (_, i) => level * Math.sin((2 * Math.PI * freqHz * i) / sampleRate),
  );
}

describe('spectrum', () => {
  it.each(RATES)('reads a 110 Hz sine of level 0.5 at its bin, %i Hz', (sampleRate) => {
    const analyser = spectrumAnalyserOf(8192);
    const out = new Float32Array(analyser.bins);
    analyser.magnitudes(sine(110, sampleRate, 1, 0.5), 0, out);
    const peak = out.indexOf(Math.max(...out));
    expect(Math.abs((peak * sampleRate) / 8192 - 110)).toBeLessThan(sampleRate / 8192);
    // The window spreads a sine that lies between two bins: up to 1.4 dB less is right.
    expect(out[peak]).toBeGreaterThan(0.5 * 0.85);
    expect(out[peak]).toBeLessThan(0.501);
  });

  it('takes what lies outside of the samples for silence', () => {
    const analyser = spectrumAnalyserOf(1024);
    const out = new Float32Array(analyser.bins).fill(7);
    analyser.magnitudes(sine(440, 22050, 0.01), -5000, out);
    expect(Math.max(...out)).toBe(0);
  });

  it('refuses an output of the wrong length and says both lengths', () => {
    const analyser = spectrumAnalyserOf(1024);
    expect(() => analyser.magnitudes(new Float32Array(10), 0, new Float32Array(512))).toThrow(
      /513 bins, but has 512/,
    );
  });

  it('does not write past the end of the output', () => {
    const analyser = spectrumAnalyserOf(256);
    const memory = new Float32Array(analyser.bins + 1).fill(-1);
    analyser.magnitudes(sine(440, 22050, 0.1), 0, memory.subarray(0, analyser.bins));
    expect(memory.at(-1)).toBe(-1);
  });
});

describe('window', () => {
  it('has a mean of one half and overlaps to a constant at half its length', () => {
    const w = hannWindow(64);
    for (let i = 0; i < 32; i++) expect(w[i] + w[i + 32]).toBeCloseTo(1, 6);
  });
});

describe('log filterbank', () => {
  it('puts a sine into the band around its frequency', () => {
    const bank = createLogFilterbank(4096, 22050, { minHz: 50, maxHz: 8000, bandsPerOctave: 12 });
    const analyser = spectrumAnalyserOf(4096);
    const magnitudes = new Float32Array(analyser.bins);
    const bands = new Float32Array(bank.bands);
    analyser.magnitudes(sine(1000, 22050, 1), 0, magnitudes);
    bank.apply(magnitudes, bands);
    const loudest = bands.indexOf(Math.max(...bands));
    expect(Math.abs(Math.log2(bank.centresHz[loudest] / 1000))).toBeLessThan(1 / 12);
  });
});

describe('peaks', () => {
  it('finds the top of a parabola exactly', () => {
    const f = (x: number): number => 3 - (x - 0.2) ** 2;
    const { offset, value } = parabolicPeak(f(-1), f(0), f(1));
    expect(offset).toBeCloseTo(0.2, 9);
    expect(value).toBeCloseTo(3, 9);
  });

  it('picks local maxima that stand above their surroundings, and of equal neighbours the first', () => {
    const curve = Float32Array.from([0, 0, 1, 1, 0, 0, 0, 0.1, 0, 0, 0, 2, 0, 0]);
    expect(pickPeaks(curve, { maxRadius: 2, meanRadius: 5, delta: 0.3 })).toEqual([2, 11]);
  });

  it('finds nothing in silence', () => {
    expect(pickPeaks(new Float32Array(50), { maxRadius: 2, meanRadius: 5, delta: 0.1 })).toEqual([]);
  });
});

describe('statistics', () => {
  it.each([
    [[3, 1, 2], 0.5, 2],
    [[1, 2, 3, 4], 0.5, 2.5],
    [[5], 0.9, 5],
    [[0, 10], 0.25, 2.5],
  ])('quantile of %j at %f is %f', (values, share, expected) => {
    expect(quantile(values, share)).toBeCloseTo(expected, 9);
  });

  it('has no median of nothing', () => {
    expect(median([])).toBeNull();
  });

  it('says 0 for the likeness with silence', () => {
    expect(cosineSimilarity([1, 2], [0, 0])).toBe(0);
    expect(cosineSimilarity([1, 2], [2, 4])).toBeCloseTo(1, 9);
  });
});

describe('biquad filters', () => {
  const levelAt = (filtered: Float32Array): number => Math.max(...filtered.subarray(filtered.length / 2));

  it.each([
    ['low pass at its corner', lowPass(1000, 44100), 1000, Math.SQRT1_2],
    ['high pass at its corner', highPass(1000, 44100), 1000, Math.SQRT1_2],
    ['low pass a decade above', lowPass(200, 44100), 2000, 0.01],
    ['peak of +6 dB', peaking(1000, 44100, 1, 6), 1000, 1.995],
  ])('%s', (_, filter, freqHz, gain) => {
    expect(levelAt(applyBiquad(sine(freqHz, 44100, 0.5), filter))).toBeCloseTo(gain, 2);
  });

  it.each([0, 1, 2, 3, 4])('%i at once are the same as one after the other', (count) => {
    const filters = [
      lowPass(3000, 44100),
      peaking(500, 44100, 2, -7),
      highPass(90, 44100),
      lowPass(2000, 44100),
    ];
    const wanted = filters.slice(0, count);
    const signal = sine(440, 44100, 0.1);
    const given = signal.slice();
    const filtered = applyBiquad(signal, ...wanted);
    expect(filtered).toEqual(wanted.reduce<Float32Array>((s, filter) => applyBiquad(s, filter), signal));
    expect(filtered).not.toBe(signal);
    expect(signal).toEqual(given);
  });

  it.each([1, 2])('leaves nothing so small that processors get slow with it (%i filters)', (count) => {
    const smallestNormal = 2 ** -126;
    const struck = new Float32Array(100_000);
    struck[0] = 1;
    const ringing = applyBiquad(struck, ...Array.from({ length: count }, () => highPass(20, 44100)));
    expect(ringing.filter((v) => v !== 0 && Math.abs(v) < smallestNormal)).toHaveLength(0);
    expect(ringing[1000]).not.toBe(0);
  });
});

describe('envelope', () => {
  it('scales the loudest place to 255 and keeps the order of channels out of it', () => {
    const interleaved = new Float32Array(2 * 4410);
    interleaved[0] = 0.25;
    interleaved[2 * 2205 + 1] = -0.5;
    const inParts = (size: number): number[] => {
      const envelope = new PeakEnvelope(44100);
      for (let at = 0; at < interleaved.length; at += size)
        envelope.add(interleaved.subarray(at, at + size), 2);
      return [...envelope.bytes()];
    };
    const whole = inParts(interleaved.length);
    expect(whole).toHaveLength(20);
    expect([whole[0], whole[10]]).toEqual([128, 255]);
    expect(inParts(2)).toEqual(whole);
    expect(inParts(1234)).toEqual(whole);
  });

  it('draws silence as nothing', () => {
    const envelope = new PeakEnvelope(22050);
    envelope.add(new Float32Array(1000), 1);
    expect(Math.max(...envelope.bytes())).toBe(0);
  });
});
