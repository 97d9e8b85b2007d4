/**
 * How many cents a recording is away from A4 = 440 Hz: the mode of the deviations of strong partials from
 * equal temperament. A mean would be pulled by fifth partials (-14 cents) and difference tones; the mode,
 * found by mean shift on the circle of 100 cents, is not (docs/experiments.md).
 */
import { spectrumAnalyserOf, median, parabolicPeak } from '../dsp';
import { hzToMidi } from '../theory';
import type { ReferenceOffset } from './types';

const FFT_SIZE = 4096;
/** Partials below are too coarse in cents, above too often not from the guitar. */
const MIN_HZ = 70;
const MAX_HZ = 1500;
/** A partial stands this far above the median magnitude of its frame. */
const PEAK_OVER_MEDIAN = 6;
/** Width of the Gaussian kernel, cents: narrower than the scatter of strings, wider than a bin. */
const KERNEL_CENTS = 4;
/** Mean shift is over when it moves by less, cents; it slows down towards the mode, so that all that is left is under a tenth. */
const SETTLED_CENTS = 0.002;
const MOST_ROUNDS = 20;
/** Kernels end here, in widths: what is farther weighs under 2e-8. */
const KERNEL_REACH = 6;
/** The pitch over time is read from blocks this long, with at least so many partials, near the pitch of the whole. */
const BLOCK_S = 10;
const PARTIALS_IN_BLOCK = 40;
const BLOCK_KERNEL_CENTS = 8;
/** This near to a quarter tone a cent of measuring error would decide between two notes. */
const UNSETTLED_CENTS = 5;
/** At most this many frames are read, spread evenly: more do not change the mode. */
const MAX_FRAMES = 1200;

/** Distance on the circle of 100 cents, in (-50, 50]. */
function wrapCents(cents: number): number {
  const wrapped = ((((cents + 50) % 100) + 100) % 100) - 50;
  return wrapped === -50 ? 50 : wrapped;
}

/** From the circle that starts at 0 to shares from -49 to +50. */
function histogramOf(circle: Float64Array): number[] {
  const sum = circle.reduce((s, v) => s + v, 0);
  return Array.from({ length: 100 }, (_, i) => circle[(i + 51) % 100] / sum);
}

/** Null when nothing tonal was heard. */
export function estimateReferenceOffset(samples: Float32Array, sampleRate: number): ReferenceOffset | null {
  const analyser = spectrumAnalyserOf(FFT_SIZE);
  const magnitudes = new Float32Array(analyser.bins);
  const binHz = sampleRate / FFT_SIZE;
  const hop = Math.max(FFT_SIZE / 4, Math.floor(samples.length / MAX_FRAMES));
  const deviations: number[] = [];
  const weights: number[] = [];
  const timesS: number[] = [];
  for (let start = 0; start + FFT_SIZE <= samples.length; start += hop) {
    analyser.magnitudes(samples, start, magnitudes);
    const floor = (median(magnitudes) ?? 0) * PEAK_OVER_MEDIAN;
    for (let k = Math.ceil(MIN_HZ / binHz); k <= MAX_HZ / binHz; k++) {
      const m = magnitudes[k];
      if (m <= floor || m <= 1e-5 || m < magnitudes[k - 1] || m <= magnitudes[k + 1]) continue;
      const { offset } = parabolicPeak(
        Math.log(magnitudes[k - 1] + 1e-12),
        Math.log(m),
        Math.log(magnitudes[k + 1] + 1e-12),
      );
      deviations.push(wrapCents(hzToMidi((k + offset) * binHz) * 100));
      weights.push(m);
      timesS.push(start / sampleRate);
    }
  }
  if (deviations.length === 0) return null;

  const histogram = new Float64Array(100);
  deviations.forEach((d, i) => (histogram[(Math.round(d) + 100) % 100] += weights[i]));
  const kernel = (distance: number): number => Math.exp(-0.5 * (distance / KERNEL_CENTS) ** 2);
  let mode = 0;
  let best = -1;
  for (let c = -49; c <= 50; c++) {
    let density = 0;
    for (let d = -12; d <= 12; d++) density += histogram[(c + d + 200) % 100] * kernel(d);
    if (density > best) [best, mode] = [density, c];
  }
  const shiftFrom = (from: number, indices: readonly number[], width: number): number => {
    let at = from;
    for (let round = 0; round < MOST_ROUNDS; round++) {
      let sum = 0;
      let total = 0;
      for (const i of indices) {
        const distance = wrapCents(deviations[i] - at);
        if (Math.abs(distance) > KERNEL_REACH * width) continue;
        const w = weights[i] * Math.exp(-0.5 * (distance / width) ** 2);
        sum += w * distance;
        total += w;
      }
      if (total === 0) break;
      at = wrapCents(at + sum / total);
      if (Math.abs(sum / total) < SETTLED_CENTS) break;
    }
    return at;
  };
  mode = shiftFrom(
    mode,
    deviations.map((_, i) => i),
    KERNEL_CENTS,
  );
  const spread = median(deviations.map((d) => Math.abs(wrapCents(d - mode)))) ?? 0;
  const overTime: { timeS: number; cents: number }[] = [];
  for (let from = 0; from < timesS.length;) {
    const blockS = BLOCK_S * Math.floor(timesS[from] / BLOCK_S);
    let to = from;
    while (to < timesS.length && timesS[to] < blockS + BLOCK_S) to++;
    if (to - from >= PARTIALS_IN_BLOCK) {
      const indices = Array.from({ length: to - from }, (_, i) => from + i);
      const local = shiftFrom(mode, indices, BLOCK_KERNEL_CENTS);
      overTime.push({ timeS: blockS + BLOCK_S / 2, cents: mode + wrapCents(local - mode) });
    }
    from = to;
  }
  return {
    cents: mode,
    spreadCents: spread,
    isNearQuarterTone: 50 - Math.abs(mode) < UNSETTLED_CENTS,
    histogram: histogramOf(histogram),
    partials: deviations.length,
    overTime,
  };
}
