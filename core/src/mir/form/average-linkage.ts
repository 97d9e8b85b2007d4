/**
 * Groups of things that are alike, each perhaps moved by some steps of a circle (semitones). Two groups are as like as their members
 * are on the mean, so that many doubtful likenesses together are a sure one.
 * Method: agglomerative clustering by average linkage (Sokal and Michener 1958, "A statistical method for evaluating systematic relationships").
 */

export interface Linked {
  /** The earliest thing of the group that this one is in; itself where it is alone or the earliest. */
  readonly first: number;
  /** How far that one is moved to be this one, 0 to steps - 1. */
  readonly shift: number;
}

export interface Linkage {
  /** How much each thing counts. */
  readonly weights: readonly number[];
  /** How like the later of two is to the earlier when that one is moved up by `shift` steps. */
  readonly likeness: (earlier: number, later: number, shift: number) => number;
  /** Of the circle; 1 where nothing moves. */
  readonly steps: number;
  /** Groups less alike than this stay apart. */
  readonly atLeast: number;
  /** Taken from the likeness of what is moved. */
  readonly movedCosts: number;
}

/** Cost grows with the square of the things for each that is joined. */
export function linkByAverage({ weights, likeness, steps, atLeast, movedCosts }: Linkage): Linked[] {
  const count = weights.length;
  const linked = weights.map((_, i) => ({ first: i, shift: 0 }));
  const weight = [...weights];
  // Likeness of group i moved by s to group j, for i < j; a group is called by its earliest thing.
  const mean = weights.map((_, i) =>
    Float64Array.from({ length: count * steps }, (_v, at) => {
      const [j, shift] = [Math.floor(at / steps), at % steps];
      return j > i ? likeness(i, j, shift) : 0;
    }),
  );
  const between = (a: number, b: number, shift: number): number =>
    a < b ? mean[a][b * steps + shift] : mean[b][a * steps + ((steps - shift) % steps)];
  const alive = new Set(weights.keys());
  for (;;) {
    let best = { likeness: atLeast, into: -1, from: -1, shift: 0 };
    for (const into of alive) {
      for (const from of alive) {
        if (from <= into) continue;
        for (let shift = 0; shift < steps; shift++) {
          const value = mean[into][from * steps + shift] - (shift === 0 ? 0 : movedCosts);
          if (value > best.likeness) best = { likeness: value, into, from, shift };
        }
      }
    }
    const { into, from, shift } = best;
    if (into < 0) return linked;
    alive.delete(from);
    for (const other of alive) {
      if (other === into) continue;
      const joined = Array.from({ length: steps }, (_, s) => {
        const ofFrom = between(from, other, (s - shift + steps) % steps);
        return (
          (weight[into] * between(into, other, s) + weight[from] * ofFrom) / (weight[into] + weight[from])
        );
      });
      joined.forEach((value, s) => {
        if (into < other) mean[into][other * steps + s] = value;
        else mean[other][into * steps + ((steps - s) % steps)] = value;
      });
    }
    weight[into] += weight[from];
    linked.forEach((one, i) => {
      if (one.first === from) linked[i] = { first: into, shift: (one.shift + shift) % steps };
    });
  }
}
