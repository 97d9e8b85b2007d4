/** Decibels and amplitude ratios; a pair of inverses. */

export function dbToRatio(db: number): number {
  return 10 ** (db / 20);
}

/** Ratio 0 gives -Infinity. */
export function ratioToDb(ratio: number): number {
  return 20 * Math.log10(ratio);
}
