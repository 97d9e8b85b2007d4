/**
 * Takes a band apart at once and roughly, bin by bin of a short-time spectrum, by what sets its parts apart:
 * - drums hit: for a moment they are high over all frequencies (median filtering, FitzGerald 2010, "Harmonic/percussive separation using
 *   median filtering", DAFx);
 * - a bass is deep, rings, and stands in the middle;
 * - a voice stands in the middle and wanders: it rings for a moment, but draws no level line over a second (two lengths of the median,
 *   after Tachibana, Ono and Sagayama 2014, "Singing voice enhancement in monaural music signals based on two-stage harmonic/percussive
 *   sound separation", IEEE/ACM Transactions on Audio, Speech, and Language Processing 22);
 * - guitars are the rest.
 * Every bin is shared out among the four, so that they add up to the recording. Figures: docs/accuracy.md, what was tried:
 * docs/experiments.md.
 */
import {
  createStereoFrames,
  FRAME_BINS as BINS,
  FRAME_SIZE as SIZE,
  movingMedian,
  panGain,
  replaceSorted,
  slope,
  type PanWindow,
  type StereoFrames,
  type StereoSpectrum,
} from '../dsp';
import type { BandParts } from '../parts';

type StereoPair = readonly [Float32Array, Float32Array];

const OVERLAP = 2;
const HOP = SIZE / OVERLAP;

/** Frames to each side for the median over a moment: 0.4 s at 44.1 kHz. */
const RING_FRAMES = 4;
const OVER_RING = 2 * RING_FRAMES + 1;
/** Every second frame, eleven of them, for the median over a second. */
const LINE_STEP = 2;
const LINE_COUNT = 11;
/** The newest frame is so many after the one that is taken apart: half of the longest median. */
const AHEAD = (LINE_STEP * (LINE_COUNT - 1)) / 2;
const WARM_UP = LINE_STEP * LINE_COUNT - AHEAD;
/** Bins to each side for the median over frequency, which is 90 Hz. */
const HIT_BINS = 8;
/** Guitars are struck too: what hits counts as drums only where it is so much above what rings. */
const HIT_WEIGHT = 0.7;
/** Cymbals stand to the sides, but there are guitars, which are struck: a fifth of what hits there counts. */
const HIT_AT_SIDES = 0.2;
/** Hz and octaves: the bass has what is lower, and less and less above. Guitars begin at 82 Hz and have most of theirs above 160. */
const BASS_HZ = 130;
const BASS_SLOPE = 0.8;
/** Hz and octaves: where a voice has nearly all of its sound. */
const VOICE_HZ = [300, 6000] as const;
const VOICE_SLOPE = 0.5;
/** Lead guitars stand in the middle and wander too, so that a voice is not believed all it could have. */
const VOICE_SHARE = 0.6;
const CENTRE: PanWindow = { position: 0, width: 0.2, isInside: true };
/** Share of the last frame in the smoothed levels: about 60 ms. */
const SMOOTHING = 0.36;

/** Hz: what is higher is shared out as the octave below, since only cymbals and the fizz of strokes are there. It saves half of the work. */
const LOOKED_AT_HZ = 10_000;

/** Magnitudes of frames as they come, and per bin their median. */
class Medians {
  private readonly sorted: Float32Array;

  constructor(
    private readonly size: number,
    private readonly bins: number,
  ) {
    this.sorted = new Float32Array(bins * size);
  }

  /** `gone` leaves the window; null = silence before the first. */
  replace(gone: Float32Array | null, magnitudes: Float32Array): void {
    for (let k = 0; k < this.bins; k++) {
      replaceSorted(this.sorted, k * this.size, this.size, gone?.[k] ?? 0, magnitudes[k]);
    }
  }

  at(k: number): number {
    return this.sorted[k * this.size + (this.size >> 1)];
  }
}

interface Frame {
  readonly spectrum: StereoSpectrum;
  readonly magnitudes: Float32Array;
}

/** Gains of one frame, each bin's adding up to 1 with that of the guitars. */
interface Gains {
  readonly drums: Float32Array;
  readonly bass: Float32Array;
  readonly voice: Float32Array;
}

/** Shares out the bins of frames that come one after the other. */
class Sharing {
  private readonly levels = [new Float32Array(BINS), new Float32Array(BINS), new Float32Array(BINS)];
  private readonly now = { left: 0, right: 0, both: 0 };
  private readonly hits = new Float32Array(BINS);
  private readonly deep: Float32Array;
  private readonly sung: Float32Array;
  readonly gains: Gains = {
    drums: new Float32Array(BINS),
    bass: new Float32Array(BINS),
    voice: new Float32Array(BINS),
  };

  constructor(
    private readonly frames: StereoFrames,
    sampleRate: number,
    /** Bins that are looked at. */
    private readonly bins: number,
  ) {
    const hz = Float32Array.from({ length: BINS }, (_, k) => Math.max(1, (k * sampleRate) / SIZE));
    const [low, high] = VOICE_HZ;
    this.deep = hz.map((f) => slope(Math.log2(f / BASS_HZ), BASS_SLOPE));
    this.sung = hz.map((f) => slope(Math.max(Math.log2(low / f), Math.log2(f / high)), VOICE_SLOPE));
  }

  /** How far a bin stands in the middle, 0 to 1. */
  private middle(spectrum: StereoSpectrum, k: number): number {
    const { now, levels } = this;
    this.frames.levelsOf(spectrum, k, now);
    const left = (levels[0][k] = SMOOTHING * levels[0][k] + (1 - SMOOTHING) * now.left);
    const right = (levels[1][k] = SMOOTHING * levels[1][k] + (1 - SMOOTHING) * now.right);
    const both = (levels[2][k] = SMOOTHING * levels[2][k] + (1 - SMOOTHING) * now.both);
    return panGain(left, right, both, CENTRE);
  }

  /** `ringing`: medians over a moment, `level`: over a second. */
  share({ spectrum, magnitudes }: Frame, ringing: Medians, level: Medians): void {
    const { drums, bass, voice } = this.gains;
    movingMedian(magnitudes.subarray(0, this.bins), HIT_BINS, this.hits);
    let high = 0;
    for (let k = 0; k < this.bins; k++) {
      const middle = this.middle(spectrum, k);
      const power = magnitudes[k] ** 2;
      const hits = HIT_WEIGHT * this.hits[k] ** 2;
      const rings = ringing.at(k) ** 2;
      const struck = hits + rings > 0 ? hits / (hits + rings) : 0;
      drums[k] = struck * (HIT_AT_SIDES + (1 - HIT_AT_SIDES) * middle);
      bass[k] = (1 - drums[k]) * this.deep[k] * middle;
      const wanders = power > 0 ? Math.max(0, 1 - level.at(k) ** 2 / power) : 0;
      voice[k] = (1 - drums[k] - bass[k]) * this.sung[k] * middle * wanders ** 2 * VOICE_SHARE;
      if (2 * k >= this.bins) high += drums[k];
    }
    drums.fill(high / (this.bins - Math.ceil(this.bins / 2)), this.bins);
  }
}

/**
 * The samples [from, to) of two channels, taken apart; the parts add up to them. They depend on what is around them, sixteen hops to both
 * sides; what lies outside of the channels is silence. Stretches that begin on multiples of a hop join without a seam. Throws a RangeError
 * for channels of two lengths.
 */
export function separateRoughly(
  channels: StereoPair,
  sampleRate: number,
  from: number,
  to: number,
): BandParts {
  if (channels[0].length !== channels[1].length) {
    throw new RangeError('separation takes two channels of equal length');
  }
  const pair = (): StereoPair => [new Float32Array(to - from), new Float32Array(to - from)];
  const [drums, bass, voice] = [pair(), pair(), pair()];
  const frames = createStereoFrames(OVERLAP);
  const bins = Math.min(BINS, Math.ceil((LOOKED_AT_HZ * SIZE) / sampleRate));
  const sharing = new Sharing(frames, sampleRate, bins);
  const [ringing, level] = [new Medians(OVER_RING, bins), new Medians(LINE_COUNT, bins)];
  const history: Frame[] = [];
  const lines: Float32Array[] = [];

  const first = Math.floor(from / HOP) - OVERLAP - WARM_UP;
  const last = Math.ceil(to / HOP) + AHEAD;
  for (let n = first; n <= last; n++) {
    // Spectra that nobody needs any more are written over.
    const old = history.length > AHEAD + OVER_RING ? history.shift() : undefined;
    const spectrum = frames.spectrum(channels, n * HOP, old?.spectrum);
    const magnitudes = frames.magnitudes(spectrum);
    history.push({ spectrum, magnitudes });
    if (n % LINE_STEP === 0) {
      lines.push(magnitudes);
      level.replace(lines.length > LINE_COUNT ? (lines.shift() ?? null) : null, magnitudes);
    }
    const at = history.length - 1 - AHEAD;
    const newest = history.at(at + RING_FRAMES);
    if (at + RING_FRAMES < 0 || !newest) continue;
    const gone = at > RING_FRAMES ? history[at - RING_FRAMES - 1] : null;
    ringing.replace(gone?.magnitudes ?? null, newest.magnitudes);
    const start = (n - AHEAD) * HOP;
    if (at < 0) continue;
    sharing.share(history[at], ringing, level);
    if (start + SIZE <= from || start >= to) continue;
    frames.add(history[at].spectrum, sharing.gains.drums, drums, from - start);
    frames.add(history[at].spectrum, sharing.gains.bass, bass, from - start);
    frames.add(history[at].spectrum, sharing.gains.voice, voice, from - start);
  }
  const guitars = pair();
  for (const [c, rest] of guitars.entries()) {
    for (let n = 0; n < rest.length; n++) {
      rest[n] = (channels[c][from + n] ?? 0) - drums[c][n] - bass[c][n] - voice[c][n];
    }
  }
  return { drums, bass, voice, guitars };
}
