/** Where a source stands in the stereo picture, from how loud it is left and right. */

/**
 * -1 left, 0 centre, 1 right by the constant-power pan law, under which a source at p has the balance sin(p π / 2); null for
 * silence. Arguments are powers.
 */
export function panPlace(left: number, right: number): number | null {
  const total = left + right;
  if (total <= 0) return null;
  return (2 / Math.PI) * Math.asin(Math.max(-1, Math.min(1, (right - left) / total)));
}
