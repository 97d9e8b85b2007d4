/** Times of a recording as players read them. */

/** Minutes, seconds and tenths, cut off: 75.39 → '1:15.3'. */
export function clock(timeS: number): string {
  // A hair of tolerance: 0.3 s is stored as a little less.
  const tenths = Math.floor(Math.max(0, timeS) * 10 + 1e-6);
  const seconds = Math.floor(tenths / 10);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}.${tenths % 10}`;
}

/** Minutes and seconds, rounded: 192.4 → '3:12'. */
export function minutes(timeS: number): string {
  const seconds = Math.round(timeS);
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}
