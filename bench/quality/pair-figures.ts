/** Figures of one pair of performances: how far the moments that both have are from where they were laid. */
import { align, timeMapOf, type MonoSignal } from '@wild-needle/core/alignment';
import { quantile } from '@wild-needle/core/dsp';
import type { Pair } from './performances';
import { readSound } from './read-sound';

export interface PairFigures {
  readonly medianMs: number;
  /** 95 of 100 are within this. */
  readonly mostMs: number;
  readonly keyIsRight: boolean;
  /** The part that only the other one has was said, its ends to three seconds; null where there is none and none was said. */
  readonly partIsRight: boolean | null;
  readonly likeness: number;
}

const SAME_END_S = 3;

export const quantileOf = (values: readonly number[], share: number): number =>
  quantile(values, share) ?? NaN;

/** Both sides together. */
export function monoOf(path: string): MonoSignal {
  const { channels, sampleRate } = readSound(path);
  const [left, right] = channels;
  return { samples: right ? left.map((value, n) => (value + right[n]) / 2) : left, sampleRate };
}

/** Null where the two were taken for different songs. */
export function alignedPair(pair: Pair): PairFigures | null {
  const [reference, other] = [monoOf(pair.referencePath), monoOf(pair.otherPath)];
  const result = align(reference, other);
  if ('unrelated' in result) return null;
  const [referenceS, otherS] = [reference, other].map((s) => s.samples.length / s.sampleRate);
  const map = timeMapOf(result, { referenceS, otherS });
  const errors = pair.moments.map(([a, b]) => 1000 * Math.abs(map.toOther(a) - b));
  // What is before the first beat and behind the last one is an audience, and no part of the song.
  const inside = map.onlyIn.filter(({ recording, startS, endS }) =>
    recording === 'other'
      ? startS > pair.moments[0][1] && endS < pair.moments[pair.moments.length - 1][1]
      : startS > 1 && endS < referenceS - 3,
  );
  const { onlyInOther: part } = pair;
  const isPart = inside.some(
    (p) => part && Math.abs(p.startS - part.startS) < SAME_END_S && Math.abs(p.endS - part.endS) < SAME_END_S,
  );
  return {
    medianMs: quantileOf(errors, 0.5),
    mostMs: quantileOf(errors, 0.95),
    keyIsRight: result.semitones === pair.semitones,
    partIsRight: part ? isPart && inside.length === 1 : inside.length === 0 ? null : false,
    likeness: result.likeness,
  };
}
