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

/**
 * Device times in [fromS, toS) at which the given places of the recording (ascending) are reached, with their indices; in
 * a loop they come again every round.
 */
export function reachedBetween(
  { contextS, inputS, speed, loop }: Segment,
  placesS: readonly number[],
  fromS: number,
  toS: number,
): { readonly atS: number; readonly index: number }[] {
  const reached: { atS: number; index: number }[] = [];
  const [first, last] = [Math.max(contextS, fromS), toS];
  const add = (place: number, index: number): void => {
    const atS = contextS + (place - inputS) / speed;
    if (place >= inputS && atS >= first && atS < last) reached.push({ atS, index });
  };
  const isEntered = loop !== null && inputS < loop.endS;
  placesS.forEach((place, index) => {
    if (!isEntered) add(place, index);
    else {
      if (place < loop.endS) add(place, index);
      if (place < loop.startS || place >= loop.endS) return;
      const roundS = loop.endS - loop.startS;
      // Rounds are unrolled: the same place again, one loop later.
      const until = inputS + (last - contextS) * speed;
      const from = Math.max(1, Math.floor((inputS + (first - contextS) * speed - place) / roundS));
      for (let round = from; place + round * roundS < until; round++) add(place + round * roundS, index);
    }
  });
  return reached.sort((a, b) => a.atS - b.atS);
}
