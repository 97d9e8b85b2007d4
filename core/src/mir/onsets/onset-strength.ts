/**
 * How strongly the spectrum rises from frame to frame: one curve per frequency region.
 * Method: spectral flux on a logarithmic filterbank against the maximum of neighbouring bands, so that vibrato
 * does not count as an attack (SuperFlux; Böck and Widmer, DAFx 2013).
 * Shape: curves have one value per frame; frame n is centred on n * HOP / sampleRate.
 */
import { createLogFilterbank, spectrumAnalyserOf } from '../../dsp';

export const HOP = 220;
const FFT_SIZE = 1024;
/** Rise is taken over this many frames (20 ms), the length of a pick attack through an amplifier. */
const LAG_FRAMES = 2;
/** Scale before the logarithm: full scale sines read 1, tails of chords about 0.001. */
const COMPRESSION = 1000;

/** Regions of the sound, Hz: kick and bass, chords, pick noise. */
const REGIONS = { low: [30, 130], body: [130, 1800], edge: [1800, 9000] } as const;
export type Region = keyof typeof REGIONS;
const REGION_NAMES = Object.keys(REGIONS) as Region[];

export interface OnsetStrength {
  readonly frameRate: number;
  readonly curves: Readonly<Record<Region, Float32Array>>;
}

export function computeOnsetStrength(samples: Float32Array, sampleRate: number): OnsetStrength {
  const analyser = spectrumAnalyserOf(FFT_SIZE);
  const filterbank = createLogFilterbank(FFT_SIZE, sampleRate, {
    minHz: 30,
    maxHz: 9500,
    bandsPerOctave: 24,
  });
  const frames = Math.floor(samples.length / HOP) + 1;
  const curves = {
    low: new Float32Array(frames),
    body: new Float32Array(frames),
    edge: new Float32Array(frames),
  };
  const regionOfBand = filterbank.centresHz.map((hz) =>
    REGION_NAMES.findIndex((name) => hz >= REGIONS[name][0] && hz < REGIONS[name][1]),
  );
  const rises = REGION_NAMES.map(() => 0);
  const bandsIn = REGION_NAMES.map((_, region) =>
    Math.max(1, regionOfBand.filter((r) => r === region).length),
  );

  const magnitudes = new Float32Array(analyser.bins);
  const history = Array.from({ length: LAG_FRAMES + 1 }, () => new Float32Array(filterbank.bands));
  for (let n = 0; n < frames; n++) {
    const now = history[n % history.length];
    analyser.magnitudes(samples, n * HOP - FFT_SIZE / 2, magnitudes);
    filterbank.apply(magnitudes, now);
    for (let b = 0; b < now.length; b++) now[b] = Math.log1p(COMPRESSION * now[b]);
    if (n < LAG_FRAMES) continue;
    const before = history[(n - LAG_FRAMES) % history.length];
    rises.fill(0);
    for (let b = 0; b < now.length; b++) {
      const region = regionOfBand[b];
      if (region < 0) continue;
      let reference = before[b];
      if (b > 0 && before[b - 1] > reference) reference = before[b - 1];
      if (b + 1 < now.length && before[b + 1] > reference) reference = before[b + 1];
      if (now[b] > reference) rises[region] += now[b] - reference;
    }
    REGION_NAMES.forEach((name, region) => (curves[name][n] = rises[region] / bandsIn[region]));
  }
  return { frameRate: sampleRate / HOP, curves };
}

/** Two signals heard together; the low end is that of the first. */
export function addStrength(a: OnsetStrength, b: OnsetStrength): OnsetStrength {
  const add = (x: Float32Array, y: Float32Array): Float32Array => x.map((v, i) => v + y[i]);
  return {
    frameRate: a.frameRate,
    curves: {
      low: a.curves.low,
      body: add(a.curves.body, b.curves.body),
      edge: add(a.curves.edge, b.curves.edge),
    },
  };
}
