/** A part of the song while its form is being found. Bars are counted from the first that holds a strum. */
import type { Segment } from './segmentation';

export interface Part extends Segment {
  /** Bars that the last pass lacks at its end. */
  readonly cutBars: number;
  /** Parts with the same number play the same riff. */
  readonly riff: number;
  /** Semitones that the first part of its riff is moved up to be this one, 0 to 11. */
  readonly shift: number;
  /** Plays something that is heard elsewhere too, or clearly enough by itself; see `lone-parts.ts`. */
  readonly returns: boolean;
  /** How far it agrees with the first part of its riff, 0 to 1; null where it is the first. */
  readonly likeRiff: number | null;
}

export function barsOf({ barsPerPass, passes, cutBars }: Part): number {
  return barsPerPass * passes - cutBars;
}

function greatestCommonDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestCommonDivisor(b, a % b);
}

/**
 * A riff has one length. Parts that were found alike in passes of 4 and of 8 bars play the one that came first, where they hold whole
 * passes of it; else the riff is as long as all of them divide by. For parts whose last pass is whole.
 */
export function toOnePassLength(parts: readonly Part[]): Part[] {
  return parts.map((part) => {
    const same = parts.filter((other) => other.riff === part.riff);
    const first = same[0].barsPerPass;
    const isWhole = same.every(({ barsPerPass, passes }) => (barsPerPass * passes) % first === 0);
    const barsPerPass = isWhole
      ? first
      : same.map((other) => other.barsPerPass).reduce((a, b) => greatestCommonDivisor(a, b));
    return { ...part, barsPerPass, passes: (part.barsPerPass * part.passes) / barsPerPass };
  });
}
