/**
 * Keeps a part of a stereo sound and lowers the rest, bin by bin of a short-time spectrum: what is panned to a place
 * (Avendano 2003, "Frequency-domain source identification and manipulation in stereo mixes", WASPAA: panorama from the
 * levels and the similarity of both channels), what lies in a band, or what rings rather than hits (median filtering,
 * FitzGerald 2010, "Harmonic/percussive separation using median filtering", DAFx).
 */
import { panGain, slope, type PanWindow } from './pan-window';
import { movingMedian, replaceSorted } from './sliding-median';
import {
  createStereoFrames,
  FRAME_BINS as BINS,
  FRAME_SIZE as SIZE,
  type BinLevels,
  type StereoFrames,
  type StereoSpectrum,
} from './stereo-frames';

export interface Isolation {
  readonly pan: PanWindow | null;
  /** Hz; null = all. */
  readonly band: readonly [number, number] | null;
  /** Keeps what rings. */
  readonly isWithoutHits: boolean;
}

const HOP = SIZE / 4;
/** A block depends on no sample farther away than this; blocks cut on multiples of it come out the same. */
export const ISOLATION_REACH = 32 * HOP;
/** What is not wanted falls to this, no further: gaps in the spectrum sound like water. */
const FLOOR = 0.06;
/** Width of the slopes of a band, octaves. */
const BAND_SLOPE = 0.4;
/** Share of the last frame in the smoothed levels: about 60 ms. */
const SMOOTHING = 0.6;
/** Frames to each side for the median over time, bins to each side for the one over frequency (0.4 s, 90 Hz). */
const RING_FRAMES = 8;
const HIT_BINS = 8;
const OVER_TIME = 2 * RING_FRAMES + 1;
/** Frames before the block, so that levels have settled. */
const WARM_UP = 12;

function bandGains([lowHz, highHz]: readonly [number, number], sampleRate: number): Float32Array {
  return Float32Array.from({ length: BINS }, (_, k) => {
    const hz = Math.max(1, (k * sampleRate) / SIZE);
    return slope(Math.max(Math.log2(lowHz / hz), Math.log2(hz / highHz)), BAND_SLOPE);
  });
}

/** One frame on its way. */
interface Frame {
  readonly spectrum: StereoSpectrum;
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
  const frames = createStereoFrames(4);
  const gains = band ? bandGains(band, sampleRate) : null;
  const out: [Float32Array, Float32Array] = [new Float32Array(to - from), new Float32Array(to - from)];
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
    const spectrum = frames.spectrum(channels, n * HOP);
    const magnitudes = isWithoutHits ? frames.magnitudes(spectrum) : new Float32Array(0);
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
    const mask = frameMask(frames, frame, levels, pan, gains, history.length === OVER_TIME ? sorted : null);
    if ((centre + 4) * HOP <= from || centre * HOP >= to) continue;
    frames.add(frame.spectrum, mask, out, from - centre * HOP);
  }
  return out;
}

function frameMask(
  frames: StereoFrames,
  { spectrum, magnitudes }: Frame,
  levels: { readonly left: Float32Array; readonly right: Float32Array; readonly both: Float32Array },
  pan: PanWindow | null,
  gains: Float32Array | null,
  sorted: Float32Array | null,
): Float32Array {
  const mask = new Float32Array(BINS).fill(1);
  if (pan) {
    const now: BinLevels = { left: 0, right: 0, both: 0 };
    for (let k = 0; k < BINS; k++) {
      frames.levelsOf(spectrum, k, now);
      levels.left[k] = SMOOTHING * levels.left[k] + (1 - SMOOTHING) * now.left;
      levels.right[k] = SMOOTHING * levels.right[k] + (1 - SMOOTHING) * now.right;
      levels.both[k] = SMOOTHING * levels.both[k] + (1 - SMOOTHING) * now.both;
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
