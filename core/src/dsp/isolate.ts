/**
 * Keeps a part of a stereo sound and lowers the rest, bin by bin of a short-time spectrum: what is panned to a place
 * (Avendano 2003, "Frequency-domain source identification and manipulation in stereo mixes", WASPAA: panorama from the
 * levels and the similarity of both channels), what lies in a band, or what rings rather than hits (median filtering,
 * FitzGerald 2010, "Harmonic/percussive separation using median filtering", DAFx).
 * Both channels go through one complex transform, left as its real and right as its imaginary part; since every bin is
 * multiplied by a real gain they come out apart again.
 */
import FFT from 'fft.js';
import { panPlace } from './pan';
import { movingMedian, replaceSorted } from './sliding-median';
import { hannWindow } from './window';

/** A place in the panorama: -1 left, 1 right, constant-power pan law. */
export interface PanWindow {
  readonly position: number;
  /** From edge to edge. */
  readonly width: number;
  /** False keeps what is outside of the window. */
  readonly isInside: boolean;
}

export interface Isolation {
  readonly pan: PanWindow | null;
  /** Hz; null = all. */
  readonly band: readonly [number, number] | null;
  /** Keeps what rings. */
  readonly isWithoutHits: boolean;
}

const SIZE = 4096;
const HOP = SIZE / 4;
/** A block depends on no sample farther away than this; blocks cut on multiples of it come out the same. */
export const ISOLATION_REACH = 32 * HOP;
const BINS = SIZE / 2 + 1;
/** What is not wanted falls to this, no further: gaps in the spectrum sound like water. */
const FLOOR = 0.06;
/** Width of the slopes of a pan window, and of a band in octaves. */
const PAN_SLOPE = 0.22;
const BAND_SLOPE = 0.4;
/** Share of the last frame in the smoothed levels: about 60 ms. */
const SMOOTHING = 0.6;
/** Similar channels are one source; below this share they are two that happen to be as loud. */
const COHERENT = 0.55;
/** Both channels hold a source when the geometric mean of its powers is this share of their mean. */
const LEAST_IN_BOTH = 0.2;
/** Frames to each side for the median over time, bins to each side for the one over frequency (0.4 s, 90 Hz). */
const RING_FRAMES = 8;
const HIT_BINS = 8;
const OVER_TIME = 2 * RING_FRAMES + 1;
/** Frames before the block, so that levels have settled. */
const WARM_UP = 12;

/** 1 inside, falling to 0 over the slope beyond it, as a raised cosine. */
function slope(beyond: number, width: number): number {
  if (beyond <= 0) return 1;
  return beyond >= width ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * beyond) / width);
}

function bandGains([lowHz, highHz]: readonly [number, number], sampleRate: number): Float32Array {
  return Float32Array.from({ length: BINS }, (_, k) => {
    const hz = Math.max(1, (k * sampleRate) / SIZE);
    return slope(Math.max(Math.log2(lowHz / hz), Math.log2(hz / highHz)), BAND_SLOPE);
  });
}

/** One frame on its way: its complex spectrum and magnitudes. */
interface Frame {
  readonly spectrum: number[];
  readonly magnitudes: Float32Array;
}

/**
 * The samples [from, to) of both channels after isolation; frames stand on multiples of a fixed hop, so that blocks
 * that are asked for one after the other join without a seam. Throws a RangeError for anything but two channels of equal
 * length.
 */
export function isolate(
  channels: readonly Float32Array[],
  sampleRate: number,
  { pan, band, isWithoutHits }: Isolation,
  from: number,
  to: number,
): [Float32Array, Float32Array] {
  if (channels.length !== 2 || channels[0].length !== channels[1].length) {
    throw new RangeError(`isolation takes two channels of equal length, but got ${channels.length}`);
  }
  const [left, right] = channels;
  const fft = new FFT(SIZE);
  const window = hannWindow(SIZE);
  const gains = band ? bandGains(band, sampleRate) : null;
  const [outLeft, outRight] = [new Float32Array(to - from), new Float32Array(to - from)];
  const input = fft.createComplexArray() as number[];
  const inverse = fft.createComplexArray() as number[];
  const levels = {
    left: new Float32Array(BINS),
    right: new Float32Array(BINS),
    both: new Float32Array(BINS),
  };
  const history: Frame[] = [];
  /** Per bin its magnitudes in the frames of `history`, sorted; frames that are not there yet are silent. */
  const sorted = new Float32Array(isWithoutHits ? BINS * OVER_TIME : 0);
  const ahead = isWithoutHits ? RING_FRAMES : 0;

  const first = Math.floor(from / HOP) - 3 - WARM_UP - ahead;
  const last = Math.ceil(to / HOP) + ahead;
  for (let n = first; n <= last; n++) {
    const spectrum = fft.createComplexArray() as number[];
    for (let i = 0; i < SIZE; i++) {
      const at = n * HOP + i;
      input[2 * i] = (left[at] ?? 0) * window[i];
      input[2 * i + 1] = (right[at] ?? 0) * window[i];
    }
    fft.transform(spectrum, input);
    const magnitudes = new Float32Array(BINS);
    if (isWithoutHits) {
      for (let k = 0; k < BINS; k++) {
        const re = spectrum[2 * k];
        const im = spectrum[2 * k + 1];
        magnitudes[k] = Math.sqrt(re * re + im * im);
      }
    }
    history.push({ spectrum, magnitudes });
    const gone = history.length > 2 * ahead + 1 ? history.shift() : undefined;
    if (isWithoutHits) {
      for (let k = 0; k < BINS; k++) {
        replaceSorted(sorted, k * OVER_TIME, OVER_TIME, gone?.magnitudes[k] ?? 0, magnitudes[k]);
      }
    }
    const centre = n - ahead;
    if (history.length <= ahead) continue;
    const frame = history[history.length - 1 - ahead];
    const mask = frameMask(frame, levels, pan, gains, history.length === OVER_TIME ? sorted : null);
    if ((centre + 4) * HOP <= from || centre * HOP >= to) continue;
    for (let k = 0; k < BINS; k++) {
      const mirror = k === 0 ? 0 : SIZE - k;
      input[2 * k] = frame.spectrum[2 * k] * mask[k];
      input[2 * k + 1] = frame.spectrum[2 * k + 1] * mask[k];
      input[2 * mirror] = frame.spectrum[2 * mirror] * mask[k];
      input[2 * mirror + 1] = frame.spectrum[2 * mirror + 1] * mask[k];
    }
    fft.inverseTransform(inverse, input);
    for (let i = 0; i < SIZE; i++) {
      const at = centre * HOP + i - from;
      if (at < 0 || at >= outLeft.length) continue;
      // Squared Hann windows at a quarter of their length add up to 1.5.
      outLeft[at] += (inverse[2 * i] * window[i]) / 1.5;
      outRight[at] += (inverse[2 * i + 1] * window[i]) / 1.5;
    }
  }
  return [outLeft, outRight];
}

function frameMask(
  { spectrum, magnitudes }: Frame,
  levels: { readonly left: Float32Array; readonly right: Float32Array; readonly both: Float32Array },
  pan: PanWindow | null,
  gains: Float32Array | null,
  sorted: Float32Array | null,
): Float32Array {
  const mask = new Float32Array(BINS).fill(1);
  if (pan) {
    for (let k = 0; k < BINS; k++) {
      const mirror = k === 0 ? 0 : SIZE - k;
      // Spectra of the two real signals out of the one complex transform.
      const a = spectrum[2 * k];
      const b = spectrum[2 * k + 1];
      const c = spectrum[2 * mirror];
      const d = spectrum[2 * mirror + 1];
      const lre = (a + c) / 2;
      const lim = (b - d) / 2;
      const rre = (b + d) / 2;
      const rim = (c - a) / 2;
      levels.left[k] = SMOOTHING * levels.left[k] + (1 - SMOOTHING) * (lre * lre + lim * lim);
      levels.right[k] = SMOOTHING * levels.right[k] + (1 - SMOOTHING) * (rre * rre + rim * rim);
      levels.both[k] = SMOOTHING * levels.both[k] + (1 - SMOOTHING) * (lre * rre + lim * rim);
      mask[k] *= panGain(levels.left[k], levels.right[k], levels.both[k], pan);
    }
  }
  if (gains) for (let k = 0; k < BINS; k++) mask[k] *= gains[k];
  if (sorted) {
    const hitting = new Float32Array(BINS);
    movingMedian(magnitudes, HIT_BINS, hitting);
    for (let k = 0; k < BINS; k++) {
      const rings = sorted[k * OVER_TIME + RING_FRAMES] ** 2;
      const hits = hitting[k] ** 2;
      mask[k] *= rings + hits > 0 ? rings / (rings + hits) : 0;
    }
  }
  for (let k = 0; k < BINS; k++) mask[k] = FLOOR + (1 - FLOOR) * mask[k];
  return mask;
}

/** How far a bin belongs to what the window keeps, 0 to 1, from the levels and the cross-level of its channels. */
function panGain(
  left: number,
  right: number,
  both: number,
  { position, width, isInside }: PanWindow,
): number {
  const place = panPlace(left, right);
  if (place === null) return 0;
  // Of a source in one channel alone the other holds nothing to be similar to.
  const isInBoth = 2 * Math.sqrt(left * right) > LEAST_IN_BOTH * (left + right);
  const coherence = isInBoth ? Math.abs(both) / Math.sqrt(left * right) : 1;
  const inside = slope(Math.abs(place - position) - width / 2, PAN_SLOPE);
  const gain = inside * Math.min(1, coherence / COHERENT) ** 2;
  return isInside ? gain : 1 - gain;
}
