/**
 * Dynamic time warping: the cheapest way through a table of costs that never goes back (Müller, "Fundamentals of Music Processing", 2015,
 * section 3.2), within a band around a way that is known roughly.
 */

export interface WarpBand {
  /** First column of each row that may be entered; it never goes back. */
  readonly first: readonly number[];
  /** Columns that may be entered in a row. */
  readonly width: number;
}

export interface WarpWeights {
  readonly diagonal: number;
  /** One row on in the same column, and one column on in the same row. */
  readonly straight: number;
}

export interface WarpPath {
  /** Row and column of each cell of the way, in order. */
  readonly cells: readonly (readonly [number, number])[];
  readonly cost: number;
}

const [FROM_DIAGONAL, FROM_ABOVE, FROM_LEFT, FROM_NOWHERE] = [0, 1, 2, 3];

/**
 * From the first cell of the first row to a cell of the last row. `hasFreeEnds`: from any cell of the first row to any of the last,
 * where the band allows it; otherwise from the first cell of its band to the last one.
 */
export function warpPath(
  { first, width }: WarpBand,
  cost: (row: number, column: number) => number,
  { diagonal, straight }: WarpWeights,
  hasFreeEnds: boolean,
): WarpPath {
  const rows = first.length;
  const from = new Uint8Array(rows * width);
  let above = new Float64Array(width).fill(Infinity);
  let here = new Float64Array(width);
  for (let row = 0; row < rows; row++) {
    const shift = row === 0 ? 0 : first[row] - first[row - 1];
    for (let k = 0; k < width; k++) {
      const local = cost(row, first[row] + k);
      const isStart = row === 0 && (k === 0 || hasFreeEnds);
      let way = FROM_NOWHERE;
      let paid = isStart ? local : Infinity;
      const enter = (before: number, weight: number, code: number): void => {
        const total = before + weight * local;
        if (total < paid) [paid, way] = [total, code];
      };
      enter(above[k + shift - 1] ?? Infinity, diagonal, FROM_DIAGONAL);
      enter(above[k + shift] ?? Infinity, straight, FROM_ABOVE);
      enter(k > 0 ? here[k - 1] : Infinity, straight, FROM_LEFT);
      here[k] = paid;
      from[row * width + k] = way;
    }
    [above, here] = [here, above];
  }
  let end = width - 1;
  if (hasFreeEnds) above.forEach((total, k) => (end = total < above[end] ? k : end));
  const cells: [number, number][] = [];
  for (let [row, k] = [rows - 1, end]; row >= 0 && k >= 0;) {
    cells.push([row, first[row] + k]);
    const way = from[row * width + k];
    if (way === FROM_NOWHERE) break;
    if (way === FROM_LEFT) k -= 1;
    else {
      k += (row > 0 ? first[row] - first[row - 1] : 0) - (way === FROM_DIAGONAL ? 1 : 0);
      row -= 1;
    }
  }
  return { cells: cells.reverse(), cost: above[end] };
}
