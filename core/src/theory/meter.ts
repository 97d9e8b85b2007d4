/** Time signatures: how bars are counted. */

export interface Meter {
  readonly beats: number;
  /** Note value of a beat: 4 = quarter. */
  readonly unit: number;
}

/** Counted in dotted notes: 6/8, 9/8, 12/8 and their kin, as every primer of music has it. */
export function isCompound({ beats, unit }: Meter): boolean {
  return unit >= 8 && beats % 3 === 0;
}

/**
 * Beats as they are written that make one beat of the tempo: a dotted quarter in compound time, else a quarter, as also in
 * 7/8 (common practice on charts).
 */
export function beatsPerTempoBeat(meter: Meter): number {
  if (isCompound(meter)) return 3;
  return Math.max(1, meter.unit / 4);
}
