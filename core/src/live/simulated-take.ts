/** A take of nobody: four bars of power chords, over and over, for trying the recorder without a guitar. Invented. */
import type { WrittenStrum } from '../check';
import { playSimulated } from './simulated-player';

const BEAT_S = 0.5;
/** Roots of the eighths, bar by bar; null where what sounds goes on. */
const BARS: readonly (readonly (number | null)[])[] = [
  [40, null, 40, 40, 43, null, 45, null],
  [40, null, 40, 40, 47, null, 45, 43],
  [40, null, 40, 40, 43, null, 45, null],
  [38, null, null, null, 43, null, 42, null],
];
const FIFTH = 7;
/** As loud as an input should be: with room above. */
const LEVEL = 0.35;
/** Rounds without a mistake are every third. */
const CLEAN_ROUND = 3;

/** One time through, to be repeated: mono, from -1 to 1. */
export function simulatedTake(sampleRate: number): Float32Array {
  const roots = BARS.flat();
  const at = (eighth: number): number => (eighth * BEAT_S) / 2;
  const strums = roots.flatMap((root, i): WrittenStrum[] => {
    if (root === null) return [];
    const next = roots.findIndex((r, k) => k > i && r !== null);
    const endS = at(next < 0 ? roots.length : next);
    return [{ timeS: at(i), endS, midi: [root, root + FIFTH], palmMuted: false, dead: false }];
  });
  const toS = at(roots.length);
  const played = playSimulated(strums, { number: CLEAN_ROUND, fromS: 0, toS, sampleRate, cents: 0 });
  return played.map((x) => LEVEL * x);
}
