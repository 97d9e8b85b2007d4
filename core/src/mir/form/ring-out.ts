/** The last chord rings on over bars in which nothing is struck: they are part of how the song ends. */
import { barsOf, type Part } from './part';

/** Of a bar as much must still sound. */
const RINGS_THROUGH = 0.5;

/** How many bars behind the one that holds the last strum its sound lasts through. */
export function ringingBars(
  endS: number,
  downbeatsS: readonly number[],
  lastBar: number,
  durationS: number,
): number {
  let rings = 0;
  for (let bar = lastBar + 1; bar < downbeatsS.length; bar++) {
    const nextS = downbeatsS[bar + 1] ?? durationS;
    if (endS < downbeatsS[bar] + RINGS_THROUGH * (nextS - downbeatsS[bar])) break;
    rings++;
  }
  return rings;
}

/** Where the last part is played once and nowhere else, it gets the bars that its last chord rings through; a riff keeps its length. */
export function ringOut(parts: readonly Part[], ringing: number): Part[] {
  const last = parts[parts.length - 1];
  const isAlone =
    last.passes === 1 && last.cutBars === 0 && parts.every((p) => p === last || p.riff !== last.riff);
  return isAlone ? [...parts.slice(0, -1), { ...last, barsPerPass: barsOf(last) + ringing }] : [...parts];
}
