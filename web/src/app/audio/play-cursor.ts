/**
 * Where playback is: arithmetic between the clock of the sound device and the place in the recording, with speed
 * and loop. Pure, so that it can be tested to the sample.
 */
export interface Loop {
  readonly startS: number;
  readonly endS: number;
}

/** From `contextS` on, playback runs from `inputS` at `speed`. */
export interface Segment {
  readonly contextS: number;
  readonly inputS: number;
  /** 1 = as recorded. */
  readonly speed: number;
  readonly loop: Loop | null;
}

/** Place in the recording at an instant of the device clock; inside of the loop once it was entered. */
export function positionAt({ contextS, inputS, speed, loop }: Segment, nowS: number): number {
  const at = inputS + Math.max(0, nowS - contextS) * speed;
  if (!loop || at < loop.endS) return at;
  return loop.startS + ((at - loop.startS) % (loop.endS - loop.startS));
}

/** Rounds of the loop completed so far. */
export function loopRounds({ contextS, inputS, speed, loop }: Segment, nowS: number): number {
  if (!loop) return 0;
  const at = inputS + Math.max(0, nowS - contextS) * speed;
  return Math.max(0, Math.floor((at - loop.startS) / (loop.endS - loop.startS)));
}
