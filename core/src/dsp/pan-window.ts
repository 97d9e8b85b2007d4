/** A window on the stereo picture, and how far a bin of a spectrum lies in it (Avendano 2003, see `isolate.ts`). */
import { panPlace } from './pan';

/** A place in the panorama: -1 left, 1 right, constant-power pan law. */
export interface PanWindow {
  readonly position: number;
  /** From edge to edge. */
  readonly width: number;
  /** False keeps what is outside of the window. */
  readonly isInside: boolean;
}

/** Width of the slopes at the edges of a window. */
const PAN_SLOPE = 0.22;
/** Similar channels are one source; below this share they are two that happen to be as loud. */
const COHERENT = 0.55;
/** Both channels hold a source when the geometric mean of its powers is this share of their mean. */
const LEAST_IN_BOTH = 0.2;

/** 1 inside, falling to 0 over the slope beyond it, as a raised cosine. */
export function slope(beyond: number, width: number): number {
  if (beyond <= 0) return 1;
  return beyond >= width ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * beyond) / width);
}

/** How far a bin belongs to what the window keeps, 0 to 1, from the levels and the cross-level of its channels. */
export function panGain(
  left: number,
  right: number,
  both: number,
  { position, width, isInside }: PanWindow,
): number {
  const place = panPlace(left, right);
  if (place === null) return 0;
  // Of a source in one channel alone the other holds nothing to be similar to.
  const isInBoth = 2 * Math.sqrt(left * right) > LEAST_IN_BOTH * (left + right);
  const coherence = isInBoth ? Math.abs(both) / Math.sqrt(left * right) : 1;
  const inside = slope(Math.abs(place - position) - width / 2, PAN_SLOPE);
  const gain = inside * Math.min(1, coherence / COHERENT) ** 2;
  return isInside ? gain : 1 - gain;
}
