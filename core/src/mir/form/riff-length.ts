/**
 * How many bars a riff has. All parts that play it decide together, for the shortest description (as in `segmentation.ts`): a bar that
 * is written once costs as much as a new one, and every bar of every pass what it differs by from the one that is written.
 */
import type { BarLikeness } from './bar-likeness';
import { barsOf, type Part } from './part';
import { NEW_BAR, PASS_LENGTHS } from './segmentation';

/**
 * A bar that differs costs so much more here than where the song is cut: it is not only longer to say, the player is asked about it. Of .6 to 3
 * the one that gives most sections of 64 rendered songs the length after which their bars come back, see docs/experiments.md.
 */
const ASKED = 1.25;

function cost(likeness: BarLikeness, parts: readonly Part[], length: number): number {
  const [first] = parts;
  let differs = 0;
  for (const part of parts) {
    for (let b = part === first ? length : 0; b < barsOf(part); b++) {
      differs += 1 - likeness(first.start + (b % length), part.start + b, part.shift);
    }
  }
  return NEW_BAR * length + ASKED * differs;
}

/** Gives all parts of a riff one length, of which each of them has whole passes. For parts whose last pass is whole. */
export function toRiffLengths(likeness: BarLikeness, parts: readonly Part[]): Part[] {
  const lengths = new Map<number, number>();
  for (const riff of new Set(parts.map((part) => part.riff))) {
    const playing = parts.filter((part) => part.riff === riff);
    const possible = PASS_LENGTHS.filter((length) => playing.every((part) => barsOf(part) % length === 0));
    const costs = possible.map((length) => cost(likeness, playing, length));
    lengths.set(riff, possible[costs.indexOf(Math.min(...costs))]);
  }
  return parts.map((part) => {
    const barsPerPass = lengths.get(part.riff) ?? part.barsPerPass;
    return { ...part, barsPerPass, passes: barsOf(part) / barsPerPass };
  });
}
