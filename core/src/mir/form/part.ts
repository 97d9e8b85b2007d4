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
  /** How sure its start is where the texture alone says it (`texture-changes.ts`); else the segmentation says. */
  readonly startProbability?: number;
}

export function barsOf({ barsPerPass, passes, cutBars }: Part): number {
  return barsPerPass * passes - cutBars;
}
