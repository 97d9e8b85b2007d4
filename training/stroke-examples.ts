/** What the stroke network sees of a generated song, and what is true of it; computed once, kept beside the song. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import {
  findStrokeCandidates,
  kindOf,
  splitStereo,
  STROKE_FEATURES,
  STROKE_KINDS,
} from '@wild-needle/core/mir';
import type { TrueStrum } from './material/song';
import { readTapedSong, readTapedTruth, songFile } from './songs';

/** Raise it when candidates or their features change: what is kept beside the songs is then computed anew. */
const VERSION = 3;
/** A candidate this near is the stroke. */
const TOLERANCE_S = 0.05;

export interface StrokeExamples {
  /** STROKE_FEATURES values per candidate. */
  readonly features: Float32Array;
  /** 0 for none, then the kinds in the order of STROKE_KINDS. */
  readonly labels: Uint8Array;
  /** Strokes that no candidate was near, for an honest recall. */
  readonly missed: number;
}

function classOf(strum: TrueStrum): number {
  return 1 + STROKE_KINDS.indexOf(kindOf(strum));
}

function label(
  timesS: readonly number[],
  strums: readonly TrueStrum[],
): { labels: Uint8Array; missed: number } {
  const labels = new Uint8Array(timesS.length);
  let missed = 0;
  for (const strum of strums) {
    let best = -1;
    let nearest = TOLERANCE_S;
    timesS.forEach((timeS, k) => {
      const distance = Math.abs(timeS - strum.timeS);
      if (labels[k] === 0 && distance < nearest) [nearest, best] = [distance, k];
    });
    if (best < 0) missed++;
    else labels[best] = classOf(strum);
  }
  return { labels, missed };
}

export function strokeExamples(seed: number): StrokeExamples {
  const file = songFile(seed, `strokes-${VERSION}`);
  if (!existsSync(file)) {
    const { signal } = readTapedSong(seed);
    const { timesS, features } = findStrokeCandidates(splitStereo(signal), signal.sampleRate);
    writeFileSync(
      file,
      Buffer.concat([Buffer.from(Float32Array.from(timesS).buffer), Buffer.from(features.buffer)]),
    );
  }
  const bytes = readFileSync(file);
  const all = new Float32Array(bytes.buffer, bytes.byteOffset, bytes.length / 4);
  const count = all.length / (STROKE_FEATURES + 1);
  return {
    features: all.slice(count),
    ...label(Array.from(all.subarray(0, count)), readTapedTruth(seed).strums),
  };
}
