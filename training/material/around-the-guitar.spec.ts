import { describe, expect, it } from 'vitest';
import { spectrumAnalyserOf } from '@wild-needle/core/dsp';
import { hzToMidi } from '@wild-needle/core/theory';
import { createRandom } from '@wild-needle/core/units';
import { createChance } from './chance';
import { compose } from './composition';
import { SAMPLE_RATE } from './rates';
import { composeSecondGuitar } from './second-guitar';
import { renderSinger } from './singer';

const SECONDS = 12;

function made(seed: number) {
  const chance = createChance(createRandom(seed));
  const song = compose(chance, 8);
  const timeAt = (quarter: number): number => (quarter * 60) / song.bpm;
  return { chance, song, timeAt };
}

describe.each([1, 2, 3, 4])('what sounds around the guitar (song %i)', (seed) => {
  it('has a voice that sings in the scale', () => {
    const { chance, song, timeAt } = made(seed);
    const [left, right] = renderSinger(song, timeAt, SECONDS, 0, chance);
    expect(left).toBe(right);
    expect(left.every(Number.isFinite)).toBe(true);
    const analyser = spectrumAnalyserOf(8192);
    const magnitudes = new Float32Array(analyser.bins);
    let [inScale, all] = [0, 0];
    for (let start = 0; start + 8192 < left.length; start += 8192) {
      analyser.magnitudes(left, start, magnitudes);
      // The voice sings under 660 Hz; its first harmonic is what is looked for.
      let top = 8;
      for (let k = 8; k < 140; k++) if (magnitudes[k] > magnitudes[top]) top = k;
      if (magnitudes[top] < 0.01) continue;
      all++;
      const midi = Math.round(hzToMidi((top * SAMPLE_RATE) / 8192));
      // Harmonics of a note are its octaves, fifths and thirds.
      if ([0, 7, 4].some((up) => song.scale.includes((midi - up + 120) % 12))) inScale++;
    }
    expect(all).toBeGreaterThan(10);
    expect(inScale / all).toBeGreaterThan(0.7);
  });

  it('has a second guitar in its range and in order', () => {
    const { chance, song, timeAt } = made(seed);
    const strums = composeSecondGuitar(song, timeAt, chance);
    expect(strums.length).toBeGreaterThan(4);
    for (const { midi, timeS, endS } of strums) {
      expect(midi.length).toBeGreaterThan(0);
      expect(Math.max(...midi)).toBeLessThanOrEqual(86);
      expect(endS).toBeGreaterThan(timeS);
    }
    const times = strums.map((s) => s.timeS);
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });
});
