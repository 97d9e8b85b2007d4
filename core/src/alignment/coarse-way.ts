/**
 * Which stretches of two recordings are the same music, in steps of a quarter of a second: the best alignment with gaps, so that a verse
 * that only one of them has is left out and not bent over (Gotoh 1982, "An improved algorithm for matching biological sequences", with
 * steps of one to two frames for another tempo). The first scale of a multi-scale warping (Prätzlich, Driedger and Müller 2016).
 */
import { CHROMA_BINS, CHROMA_HOP_S, toUnitLength, type SoundFeatures } from './sound-features';

const FRAME_S = 0.24;
/** Longer recordings are looked at in longer frames: the table stays under 10 million cells, whatever is dropped. */
const MOST_FRAMES = 3000;
/** Likeness that counts for nothing: the circles are taken against their mean, other chords of the song lie at about 0. */
const NOTHING_LIKENESS = 0.3;
/** What is paid for beginning to leave something out, in frames that are wholly alike: about 3 s of them. */
const GAP_OPEN = 12;
/** And for each frame of it: what is left out is no gain. */
const GAP_FRAME = 0.02;
/** Keeps the tempos the same where nothing speaks against it. */
const TEMPO_STEP = 0.1;
/** A stretch that is shorter is chance: riffs are alike. */
const LEAST_RUN_S = 5;
/** Circles are summed over so many frames to either side: a chord is chance, a progression is not. */
const CONTEXT = 1;

/** Frames (row, column) that are the same music, from end to end of a stretch. */
export type CoarseRun = readonly (readonly [number, number])[];

export interface CoarseWay {
  readonly runs: readonly CoarseRun[];
  readonly frameS: number;
  /** Mean likeness on the runs, and their share of the shorter recording. */
  readonly likeness: number;
  readonly share: number;
  /** What the way is worth; greater is better. */
  readonly worth: number;
}

/** Frames that both are cut into; each a circle against the mean of its recording. */
export function coarseFrames(features: SoundFeatures, frameS: number): Float32Array {
  const per = Math.round(frameS / CHROMA_HOP_S);
  const frames = Math.max(1, Math.floor(features.frames / per));
  const sums = new Float32Array(frames * CHROMA_BINS);
  for (let f = 0; f < frames; f++) {
    const from = Math.max(0, (f - CONTEXT) * per);
    const to = Math.min(features.frames, (f + 1 + CONTEXT) * per);
    for (let n = from; n < to; n++) {
      for (let k = 0; k < CHROMA_BINS; k++) sums[f * CHROMA_BINS + k] += features.chroma[n * CHROMA_BINS + k];
    }
    toUnitLength(sums, f * CHROMA_BINS, CHROMA_BINS);
  }
  const mean = new Float32Array(CHROMA_BINS);
  sums.forEach((value, i) => (mean[i % CHROMA_BINS] += value / frames));
  const against = sums.map((value, i) => value - mean[i % CHROMA_BINS]);
  for (let f = 0; f < frames; f++) toUnitLength(against, f * CHROMA_BINS, CHROMA_BINS);
  return against;
}

export function coarseFrameS(a: SoundFeatures, b: SoundFeatures): number {
  const longestS = Math.max(a.frames, b.frames) * CHROMA_HOP_S;
  const steps = Math.ceil(Math.max(FRAME_S, longestS / MOST_FRAMES) / CHROMA_HOP_S);
  return steps * CHROMA_HOP_S;
}

const [MATCH, SKIP_ROW, SKIP_COLUMN, START] = [0, 1, 2, 3];
/** Rows and columns that a step of a match goes on. */
const STEPS = [
  [1, 1],
  [1, 2],
  [2, 1],
] as const;

/** `turned`: half semitones that the other one sounds higher. */
export function coarseWay(a: Float32Array, b: Float32Array, turned: number, frameS: number): CoarseWay {
  const [rows, columns] = [a.length / CHROMA_BINS, b.length / CHROMA_BINS];
  const other = new Float32Array(b.length);
  for (let i = 0; i < b.length; i++) {
    const bin = ((((i % CHROMA_BINS) + turned) % CHROMA_BINS) + CHROMA_BINS) % CHROMA_BINS;
    other[i] = b[i - (i % CHROMA_BINS) + bin];
  }
  const likeness = (row: number, column: number): number => {
    let sum = 0;
    const [i, j] = [row * CHROMA_BINS, column * CHROMA_BINS];
    for (let k = 0; k < CHROMA_BINS; k++) sum += a[i + k] * other[j + k];
    return sum;
  };
  const cells = rows * columns;
  const best = [MATCH, SKIP_ROW, SKIP_COLUMN].map(() => new Float32Array(cells).fill(-Infinity));
  /** State that each was entered from, and for a match in the upper bits which step led there. */
  const from = [MATCH, SKIP_ROW, SKIP_COLUMN].map(() => new Uint8Array(cells).fill(START));
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const cell = row * columns + column;
      const gain = (likeness(row, column) - NOTHING_LIKENESS) / (1 - NOTHING_LIKENESS);
      // What comes before the first match costs nothing: an audience, a count-in.
      let worth = row === 0 || column === 0 ? gain : -GAP_FRAME * Math.min(row, column) + gain;
      let way = START;
      STEPS.forEach(([down, right], step) => {
        if (row < down || column < right) return;
        const before = cell - down * columns - right;
        const earned = (gain * (down + right)) / 2 - (step > 0 ? TEMPO_STEP : 0);
        for (let state = MATCH; state <= SKIP_COLUMN; state++) {
          const total = best[state][before] + earned;
          if (total > worth) [worth, way] = [total, state + 4 * step];
        }
      });
      best[MATCH][cell] = worth;
      from[MATCH][cell] = way;
      const skip = (state: number, before: number): void => {
        for (let was = MATCH; was <= SKIP_COLUMN; was++) {
          const total = best[was][before] - GAP_FRAME - (was === MATCH ? GAP_OPEN : 0);
          if (total > best[state][cell]) [best[state][cell], from[state][cell]] = [total, was];
        }
      };
      if (row > 0) skip(SKIP_ROW, cell - columns);
      if (column > 0) skip(SKIP_COLUMN, cell - 1);
    }
  }
  let end = 0;
  for (let cell = 1; cell < cells; cell++) if (best[MATCH][cell] > best[MATCH][end]) end = cell;
  const runs: (readonly [number, number])[][] = [[]];
  for (let [cell, state] = [end, MATCH]; ;) {
    const way = from[state][cell];
    const was = way % 4;
    if (state === MATCH) runs[runs.length - 1].push([Math.floor(cell / columns), cell % columns]);
    if (was === START) break;
    if (state === MATCH) {
      const [down, right] = STEPS[way >> 2];
      cell -= down * columns + right;
    } else cell -= state === SKIP_ROW ? columns : 1;
    if (was === MATCH && state !== MATCH) runs.push([]);
    state = was;
  }
  const kept = runs
    .map((run) => run.reverse())
    .reverse()
    .filter((run) => run.length > 1 && (run[run.length - 1][0] - run[0][0]) * frameS >= LEAST_RUN_S);
  const all = kept.flat();
  const mean = all.reduce((sum, [row, column]) => sum + likeness(row, column), 0) / Math.max(1, all.length);
  const covered = kept.reduce((sum, run) => sum + run[run.length - 1][0] - run[0][0] + 1, 0);
  return {
    runs: kept,
    frameS,
    likeness: mean,
    share: covered / Math.min(rows, columns),
    worth: best[MATCH][end],
  };
}
