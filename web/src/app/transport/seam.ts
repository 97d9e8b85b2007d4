/** What changes when a round of the loop ends: on the seam, neither before nor after. */
import type { Loop, Segment } from './play-cursor';

export interface SeamChange {
  readonly loop: Loop;
  readonly speed: number;
  /** Silence on the seam, device seconds; a count-in is clicked at its end. */
  readonly restS: number;
}

/** A change that waits for its seam. */
export interface Upcoming {
  /** Device time of the seam. */
  readonly seamS: number;
  readonly segment: Segment;
}

/** Device time of the first seam from `fromS` on; null where nothing is looped. */
export function seamFrom({ contextS, inputS, speed, loop }: Segment, fromS: number): number | null {
  if (!loop || inputS >= loop.endS) return null;
  const firstS = contextS + (loop.endS - inputS) / speed;
  const roundS = (loop.endS - loop.startS) / speed;
  return firstS >= fromS ? firstS : firstS + Math.ceil((fromS - firstS) / roundS) * roundS;
}

export function upcomingAt(seamS: number, { loop, speed, restS }: SeamChange): Upcoming {
  return { seamS, segment: { contextS: seamS + restS, inputS: loop.startS, speed, loop } };
}
