/**
 * Lays another recording of a song along the one that its tab is written to: first which stretches are the same music, then where in them
 * each moment lies, by notes and strokes (Ewert, Müller and Grosche 2009, "High resolution audio synchronization using chroma onset
 * features"), last to a few milliseconds by the strokes around it.
 */
import { median, parabolicPeak } from '../dsp';
import { fitLine } from '../units';
import { coarseFrames, coarseFrameS, coarseWay, type CoarseRun, type CoarseWay } from './coarse-way';
import {
  CHROMA_BINS,
  CHROMA_HOP_S,
  featuresOf,
  type MonoSignal,
  STROKE_HOP_S,
  type SoundFeatures,
} from './sound-features';
import { warpPath } from './warp-path';

/** Changes when the same recordings are laid differently: what is kept of another is worked out anew. */
export const ALIGNMENT_ALGORITHM = 'alignment@1';

/** A moment of the reference and the same of the other recording, seconds. */
export type SameMoment = readonly [referenceS: number, otherS: number];

export interface Alignment {
  /** The other recording sounds this much higher. */
  readonly semitones: number;
  /** Stretches that both have, in order; moments in each ascend in both recordings. */
  readonly runs: readonly (readonly SameMoment[])[];
  /** How alike the sounds are on the runs: 1 = the same recording, about 0 = another song. */
  readonly likeness: number;
  /** Share of the shorter recording that the runs cover. */
  readonly share: number;
}

/** Two recordings that do not belong to each other. */
export type AlignmentResult = Alignment | { readonly unrelated: true; readonly likeness: number };

/** Under these the recordings are of two songs; measured on pairs of both kinds, see docs/accuracy.md. */
const LEAST_LIKENESS = 0.66;
const LEAST_SHARE = 0.3;
/** Keys that are tried besides the same one: those in which all circles together fit best. */
const KEYS_TRIED = 4;
/** How far the coarse way may be off, and an end of a run. */
const BAND_S = 0.6;
/** Weights of music synchronisation (Ewert and Müller 2009): a step across counts as two along. */
const WEIGHTS = { diagonal: 2, straight: 1.5 };
/** Share of the strokes in what the fine way costs, and how a stroke rings on from frame to frame. */
const STROKES_SHARE = 2;
const RINGING = 0.7;
/** Costs along a way are taken together over this to either side. */
const AROUND_S = 1;
const OUTSIDE_COST = 2;
/** The coarse way is a line over so many of its frames to either side. */
const COARSE_REACH = 16;
/** Moments are kept at this distance, each from a line through the way around it. */
const MOMENT_EVERY_S = 0.5;
const LINE_REACH_S = 1.2;
/** Strokes around a moment that place it, and how far. */
const STROKES_REACH_S = 1.5;
const PLACED_WITHIN_S = 0.06;
const LEAST_STROKE = 0.1;
/** Places agree with those of their neighbours: the middle one of so many is taken. */
const NEIGHBOURS = 7;
/** Both recordings go on here: a run neither stands still nor jumps. */
const LEAST_STEP = 0.25;

export interface AlignOptions {
  readonly onProgress?: (share: number) => void;
}

/** One channel each, at the rate of analysis. */
export function align(
  reference: MonoSignal,
  other: MonoSignal,
  { onProgress }: AlignOptions = {},
): AlignmentResult {
  const a = featuresOf(reference);
  onProgress?.(0.35);
  const b = featuresOf(other);
  onProgress?.(0.7);
  const { way, turned } = bestWay(a, b);
  onProgress?.(0.8);
  if (way.likeness < LEAST_LIKENESS || way.share < LEAST_SHARE || way.runs.length === 0) {
    return { unrelated: true, likeness: way.likeness };
  }
  const runs = way.runs.map((run) => fineRun(a, b, turned, run, way.frameS));
  onProgress?.(1);
  return {
    semitones: (turned > CHROMA_BINS / 2 ? turned - CHROMA_BINS : turned) / 2,
    runs: withoutOverlap(runs.filter((run) => run.length > 1)),
    likeness: way.likeness,
    share: way.share,
  };
}

/** The best way over the keys that the other recording may be in. */
function bestWay(a: SoundFeatures, b: SoundFeatures): { way: CoarseWay; turned: number } {
  const frameS = coarseFrameS(a, b);
  const [rows, columns] = [coarseFrames(a, frameS), coarseFrames(b, frameS)];
  const [meanA, meanB] = [circleOf(a), circleOf(b)];
  const fits = Array.from({ length: CHROMA_BINS }, (_, turned) => ({
    turned,
    fit: meanA.reduce((sum, value, k) => sum + value * meanB[(k + turned) % CHROMA_BINS], 0),
  })).sort((x, y) => y.fit - x.fit);
  const tried = new Set([0, ...fits.slice(0, KEYS_TRIED).map(({ turned }) => turned)]);
  return [...tried]
    .map((turned) => ({ turned, way: coarseWay(rows, columns, turned, frameS) }))
    .reduce((best, one) => (one.way.worth > best.way.worth ? one : best));
}

/** All circles of a recording together. */
function circleOf({ chroma, frames }: SoundFeatures): number[] {
  const circle = new Array<number>(CHROMA_BINS).fill(0);
  chroma.forEach((value, i) => (circle[i % CHROMA_BINS] += value / frames));
  return circle;
}

interface Placed {
  readonly moment: SameMoment;
  /** Seconds of the other recording for one of the reference. */
  readonly slope: number;
}

/** One run to the moment. */
function fineRun(
  a: SoundFeatures,
  b: SoundFeatures,
  turned: number,
  run: CoarseRun,
  frameS: number,
): SameMoment[] {
  const per = frameS / CHROMA_HOP_S;
  const band = Math.ceil(BAND_S / CHROMA_HOP_S);
  const from = Math.max(0, Math.round(run[0][0] * per));
  const to = Math.min(a.frames, Math.round((run[run.length - 1][0] + 1) * per));
  const rows = to - from;
  const columnAt = smoothColumns(run, per);
  // Bands never go back, else a way could.
  let low = -Infinity;
  const first = Array.from({ length: rows }, (_, n) => (low = Math.max(low, columnAt(from + n) - band)));
  const width = 2 * band + 1;
  const [strokesA, strokesB] = [a.strokes, b.strokes].map((all) => all.map(perFrame));
  const costs = new Float32Array(rows * width);
  for (let row = 0; row < rows; row++) {
    const i = (from + row) * CHROMA_BINS;
    for (let k = 0; k < width; k++) {
      const column = first[row] + k;
      if (column < 0 || column >= b.frames) {
        costs[row * width + k] = OUTSIDE_COST;
        continue;
      }
      let alike = 0;
      for (let bin = 0; bin < CHROMA_BINS; bin++) {
        alike += a.chroma[i + bin] * b.chroma[column * CHROMA_BINS + ((bin + turned) % CHROMA_BINS)];
      }
      let apart = 0;
      for (let r = 0; r < strokesA.length; r++) {
        apart += Math.abs(strokesA[r][from + row] - strokesB[r][column]);
      }
      costs[row * width + k] = 1 - alike + (STROKES_SHARE * apart) / strokesA.length;
    }
  }
  const around = meanAlong(costs, rows, width, Math.round(AROUND_S / CHROMA_HOP_S));
  const cost = (row: number, column: number): number => around[row * width + column - first[row]];
  const { cells } = warpPath({ first, width }, cost, WEIGHTS, true);
  return placedByStrokes(a, b, onLines(from, columnsOf(cells, rows)));
}

/** Each cost as the mean of those before and after it along the band: a stroke is chance, a rhythm is not. */
function meanAlong(costs: Float32Array, rows: number, width: number, reach: number): Float32Array {
  const out = new Float32Array(costs.length);
  for (let k = 0; k < width; k++) {
    let sum = 0;
    let count = 0;
    for (let row = -reach; row < rows; row++) {
      if (row + reach < rows) [sum, count] = [sum + costs[(row + reach) * width + k], count + 1];
      if (row - reach - 1 >= 0) [sum, count] = [sum - costs[(row - reach - 1) * width + k], count - 1];
      if (row >= 0) out[row * width + k] = sum / count;
    }
  }
  return out;
}

/** The mean column of each row. */
function columnsOf(cells: readonly (readonly [number, number])[], rows: number): number[] {
  const [sums, counts] = [new Array<number>(rows).fill(0), new Array<number>(rows).fill(0)];
  for (const [row, column] of cells) {
    sums[row] += column;
    counts[row]++;
  }
  return sums.map((sum, row) => sum / counts[row]);
}

/** Frame of the other recording for a frame of the reference: on lines through a coarse run. */
function smoothColumns(run: CoarseRun, per: number): (frame: number) => number {
  const columns: number[] = [];
  run.forEach(([row, column], n) => {
    // A step of two rows leaves one out.
    if (n > 0 && row - run[n - 1][0] === 2) columns.push((column + run[n - 1][1]) / 2);
    columns.push(column);
  });
  const lines = columns.map((_, k) => {
    const [low, high] = [Math.max(0, k - COARSE_REACH), Math.min(columns.length - 1, k + COARSE_REACH)];
    return high > low ? fitLine(columns, low, high).at(k) : columns[k];
  });
  return (frame) => {
    const row = Math.min(lines.length - 1, Math.max(0, frame / per - 0.5 - run[0][0]));
    const k = Math.min(lines.length - 2, Math.floor(row));
    return Math.round((lines[k] + (row - k) * (lines[k + 1] - lines[k]) + 0.5) * per);
  };
}

/** The strongest stroke in each frame of the chroma, ringing on for a moment. */
function perFrame(strokes: Float32Array): Float32Array {
  const per = Math.round(CHROMA_HOP_S / STROKE_HOP_S);
  const out = new Float32Array(Math.ceil(strokes.length / per) + 1);
  for (let f = 0; f < out.length; f++) {
    for (let k = f * per - per / 2; k < f * per + per / 2; k++) out[f] = Math.max(out[f], strokes[k] ?? 0);
    if (f > 0) out[f] = Math.max(out[f], RINGING * out[f - 1]);
  }
  return out;
}

/** Moments on lines through the way around each: its stairs are no music. */
function onLines(from: number, columns: readonly number[]): Placed[] {
  const every = Math.round(MOMENT_EVERY_S / CHROMA_HOP_S);
  const reach = Math.round(LINE_REACH_S / CHROMA_HOP_S);
  const out: Placed[] = [];
  for (let row = 0; row < columns.length; row += every) {
    const low = Math.max(0, row - reach);
    const high = Math.min(columns.length - 1, row + reach);
    const line = fitLine(columns.slice(low, high + 1));
    out.push({
      moment: [(from + row) * CHROMA_HOP_S, line.at(row - low) * CHROMA_HOP_S],
      slope: line.slope,
    });
  }
  return out;
}

/** Moves each moment by what brings the strokes around it together. */
function placedByStrokes(a: SoundFeatures, b: SoundFeatures, lines: readonly Placed[]): SameMoment[] {
  const most = Math.round(PLACED_WITHIN_S / STROKE_HOP_S);
  const reach = Math.round(STROKES_REACH_S / STROKE_HOP_S);
  const lags = lines.map(({ moment: [timeS, otherS], slope }) => {
    const together = new Float32Array(2 * most + 1);
    const [i0, j0] = [timeS / STROKE_HOP_S, otherS / STROKE_HOP_S];
    a.strokes.forEach((strokes, register) => {
      const others = b.strokes[register];
      for (let n = -reach; n <= reach; n++) {
        const one = strokes[Math.round(i0 + n)] ?? 0;
        if (one < LEAST_STROKE) continue;
        const at = j0 + (Math.round(i0 + n) - i0) * slope;
        for (let lag = -most; lag <= most; lag++) {
          const place = Math.floor(at + lag);
          const share = at + lag - place;
          const two = (1 - share) * (others[place] ?? 0) + share * (others[place + 1] ?? 0);
          together[lag + most] += one * two;
        }
      }
    });
    let top = most;
    together.forEach((value, k) => (top = value > together[top] ? k : top));
    const isInside = top > 0 && top < 2 * most;
    const between = isInside ? parabolicPeak(together[top - 1], together[top], together[top + 1]).offset : 0;
    return (top + between - most) * STROKE_HOP_S;
  });
  const half = (NEIGHBOURS - 1) / 2;
  const moved = lines.map(({ moment: [timeS, otherS] }, n): SameMoment => {
    const around = lags.slice(Math.max(0, n - half), n + half + 1);
    return [timeS, otherS + (median(around) ?? 0)];
  });
  return ascending(moved);
}

/** Both ascend. */
function ascending(moments: readonly SameMoment[]): SameMoment[] {
  const out: SameMoment[] = [];
  for (const [timeS, otherS] of moments) {
    const before = out.at(-1);
    if (!before || otherS - before[1] >= LEAST_STEP * (timeS - before[0])) {
      if (timeS >= 0 && otherS >= 0) out.push([timeS, otherS]);
    }
  }
  return out;
}

/** A run begins after the one before it has ended, in both recordings. */
function withoutOverlap(runs: readonly SameMoment[][]): SameMoment[][] {
  let [endS, otherEndS] = [-Infinity, -Infinity];
  return runs
    .map((run) => {
      const kept = run.filter(([timeS, otherS]) => timeS > endS && otherS > otherEndS);
      [endS, otherEndS] = kept.at(-1) ?? [endS, otherEndS];
      return kept;
    })
    .filter((run) => run.length > 1);
}
