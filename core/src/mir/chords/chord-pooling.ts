/**
 * What strums say about each other. Those at the same place of the same riff play the same; and most strums nearby that sound
 * alike do, whichever riff they stand in, since songs repeat a chord far more often than they play one that is nearly it. One
 * counts by how far it agrees with the strum itself (the coefficient of Bhattacharyya 1943): what is doubtful is decided by its
 * like, and a riff that was drawn a bar off can't overrule what is clear.
 */
import { fullKindOf } from './full-chords';
import { doublingOdds, setDoublingOdds } from './octave-doubling';

/** Probabilities under the square of it change no agreement. */
const LEAST_ROOT = 0.02;
/** Strums this near may sound alike; a window, so that the cost grows with the length of the song and no faster. */
const NEARBY_S = 30;
/** Agreement from which strums are taken to sound alike, and the power it counts with: half-alike ones hardly do. */
const ALIKE_FROM = 0.3;
const ALIKE_POWER = 4;
/** Each against the strum itself; more is no steadier on real records and draws in what is merely like it. */
const ALIKE_WEIGHT = 0.3;
const LEAST_WEIGHT = 0.02;

/** Square roots of the probabilities, and which of them matter. */
interface Roots {
  readonly all: Float32Array;
  readonly likely: readonly number[];
}

function rootsOf(logProbabilities: Float32Array): Roots {
  const all = logProbabilities.map((log) => Math.exp(log / 2));
  const likely: number[] = [];
  all.forEach((root, c) => {
    if (root > LEAST_ROOT) likely.push(c);
  });
  return { all, likely };
}

/** 1 where two strums say the same, 0 where nothing that one takes for likely is so for the other. */
function agreement(a: Roots, b: Roots): number {
  let sum = 0;
  for (const c of a.likely) sum += a.all[c] * b.all[c];
  return Math.min(1, sum);
}

class Pool {
  private count = 1;

  constructor(private readonly sum: Float32Array) {}

  add(other: Float32Array, weight: number): void {
    for (let c = 0; c < this.sum.length; c++) this.sum[c] += weight * other[c];
    this.count += weight;
  }

  /** Strums are not independent (the same amplifier, the same bass): evidence grows as the root of their number. */
  together(): Float32Array {
    const scale = 1 / Math.sqrt(this.count);
    return this.sum.map((v) => v * scale);
  }
}

/** With the evidence of the strums at the same position of repeated passes; `groups[k]` are their indices, with k itself. */
export function poolPasses(
  said: readonly Float32Array[],
  groups: readonly (readonly number[])[],
): Float32Array[] {
  const roots = said.map(rootsOf);
  return groups.map((group, k) => {
    const pool = new Pool(said[k].slice());
    for (const member of group) {
      if (member !== k) pool.add(said[member], agreement(roots[k], roots[member]));
    }
    return pool.together();
  });
}

/**
 * `evidence` with that of the strums nearby that sound alike, by what each has `said` itself. On how many strings a power chord is
 * played nobody else is asked: two riffs may differ in nothing else (see `octave-doubling.ts`). What is a full chord by all its passes is not asked of power
 * chords, nor they of it (`full-chords.ts`). `timesS` ascends.
 */
export function poolSoundingAlike(
  evidence: readonly Float32Array[],
  said: readonly Float32Array[],
  timesS: readonly number[],
): Float32Array[] {
  const roots = said.map(rootsOf);
  const kinds = evidence.map(fullKindOf);
  let first = 0;
  return evidence.map((own, k) => {
    while (timesS[first] < timesS[k] - NEARBY_S) first++;
    const pool = new Pool(own.slice());
    for (let other = first; other < timesS.length && timesS[other] <= timesS[k] + NEARBY_S; other++) {
      if (other === k || kinds[other] !== kinds[k]) continue;
      const agreed = agreement(roots[k], roots[other]);
      const weight = agreed < ALIKE_FROM ? 0 : ALIKE_WEIGHT * agreed ** ALIKE_POWER;
      if (weight >= LEAST_WEIGHT) pool.add(said[other], weight);
    }
    const together = pool.together();
    setDoublingOdds(together, doublingOdds(own));
    return together;
  });
}
