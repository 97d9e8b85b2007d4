/**
 * The pitch of one string, exact to a cent: the period by pitchy (McLeod and Wyvill 2005, "A smarter way to find pitch",
 * ICMC), then sharpened over as many periods as the window holds, which divides the error by their number.
 */
import { PitchDetector } from 'pitchy';

/** A third of a second at 48 kHz: ten periods of the lowest string of a bass-like tuning. */
export const TUNER_WINDOW = 16_384;

/** Share of the sound that must repeat itself; plucked strings reach .95, speech and noise do not. */
const CLEAR = 0.85;
/** RMS below which nothing is played. */
const QUIETEST = 0.003;

/** Similarity of the samples with themselves `lag` later, -1 to 1. */
function similarity(samples: Float32Array, lag: number): number {
  let dot = 0;
  let energy = 0;
  for (let n = 0; n + lag < samples.length; n++) {
    dot += samples[n] * samples[n + lag];
    energy += samples[n] ** 2 + samples[n + lag] ** 2;
  }
  return energy > 0 ? (2 * dot) / energy : 0;
}

/** The lag of the peak next to `around`, between samples. */
function peakNear(samples: Float32Array, around: number, reach: number): number {
  let best = Math.round(around);
  let highest = -1;
  for (let lag = Math.round(around) - reach; lag <= Math.round(around) + reach; lag++) {
    const value = similarity(samples, lag);
    if (value > highest) [highest, best] = [value, lag];
  }
  const [before, after] = [similarity(samples, best - 1), similarity(samples, best + 1)];
  const bend = before - 2 * highest + after;
  return bend < 0 ? best + (0.5 * (before - after)) / bend : best;
}

export type TunerPitch = (samples: Float32Array, sampleRate: number) => number | null;

/** Hz, or null where nothing clear sounds; takes {@link TUNER_WINDOW} samples. */
export function createTunerPitch(): TunerPitch {
  const detector = PitchDetector.forFloat32Array(TUNER_WINDOW);
  return (samples, sampleRate) => {
    const rms = Math.sqrt(samples.reduce((sum, v) => sum + v * v, 0) / samples.length);
    if (rms < QUIETEST) return null;
    const [freqHz, clarity] = detector.findPitch(samples, sampleRate);
    if (clarity < CLEAR || freqHz <= 0) return null;
    let period = sampleRate / freqHz;
    // Doubling keeps the next peak unmistakable while the error shrinks.
    let periods = 1;
    while (2 * periods * period < samples.length / 2) {
      periods *= 2;
      const reach = Math.max(2, Math.ceil(0.004 * periods * period));
      period = peakNear(samples, periods * period, reach) / periods;
    }
    return sampleRate / period;
  };
}
