/**
 * One voicing per strum so that the hand moves little over the whole song: the shortest path through the
 * layers of candidate voicings (Sayegh 1989; solved by dynamic programming, Viterbi 1967).
 */
import type { Voicing } from './voicing';

/** A fret of movement along the neck weighs about a third of a fret of stretch (common practice). */
const COST_PER_FRET_MOVED = 0.3;
/** Crossing to other strings with the same shape is quick, but not free. */
const COST_PER_STRING_CROSSED = 0.1;

/** Effort of going from one way to play to the next. */
export function movement(from: Voicing, to: Voicing): number {
  const frets = from.position === null || to.position === null ? 0 : Math.abs(to.position - from.position);
  const strings = Math.abs(to.frets[0].string - from.frets[0].string);
  return COST_PER_FRET_MOVED * frets + COST_PER_STRING_CROSSED * strings;
}

/** For each layer and candidate the least cost of a path from the first layer to it, and where that comes from. */
function pathsTo(layers: readonly (readonly Voicing[])[]): { costs: number[][]; back: number[][] } {
  const costs: number[][] = [];
  const back: number[][] = [];
  layers.forEach((layer, k) => {
    const from: number[] = [];
    costs.push(
      layer.map((candidate, c) => {
        let best = k === 0 ? 0 : Infinity;
        let bestIndex = 0;
        if (k > 0) {
          layers[k - 1].forEach((previous, p) => {
            const total = costs[k - 1][p] + movement(previous, candidate);
            if (total < best) [best, bestIndex] = [total, p];
          });
        }
        from[c] = bestIndex;
        return best + candidate.effort;
      }),
    );
    back.push(from);
  });
  return { costs, back };
}

/**
 * For each layer (a strum's candidates, never empty) the candidate on the path of least effort plus movement.
 * Cost grows with layers × candidates².
 */
export function chooseHandPath(layers: readonly (readonly Voicing[])[]): { path: Voicing[]; cost: number } {
  if (layers.length === 0) return { path: [], cost: 0 };
  const { costs, back } = pathsTo(layers);
  const last = costs.at(-1)!;
  const cost = Math.min(...last);
  let at = last.indexOf(cost);
  const path: Voicing[] = [];
  for (let k = layers.length - 1; k >= 0; k--) {
    path.push(layers[k][at]);
    at = back[k][at];
  }
  return { path: path.reverse(), cost };
}

/**
 * For each candidate of one layer the cost of the best path that goes through it: what choosing it costs the whole riff, not
 * only the way to its neighbours.
 */
export function costsThrough(layers: readonly (readonly Voicing[])[], layer: number): number[] {
  const before = pathsTo(layers.slice(0, layer + 1)).costs[layer];
  const after = pathsTo([...layers.slice(layer)].reverse()).costs.at(-1)!;
  return layers[layer].map((candidate, c) => before[c] + after[c] - candidate.effort);
}
