/** In which order the parts of a song are made ready: from the needle on, then from the start up to it. */

export interface Part {
  readonly from: number;
  readonly to: number;
}

function cutUp(from: number, to: number, piece: number): Part[] {
  return Array.from({ length: Math.ceil((to - from) / piece) }, (_, i) => ({
    from: from + i * piece,
    to: Math.min(to, from + (i + 1) * piece),
  }));
}

/**
 * Parts that together hold [0, length) once. The first begins at the needle and is `first` samples long, so that it can be heard
 * at once; the others are at most `piece` long. Empty for no length.
 */
export function partsFrom(needle: number, length: number, first: number, piece: number): Part[] {
  const start = Math.min(length, Math.max(0, needle));
  const end = Math.min(length, start + first);
  const now = end > start ? [{ from: start, to: end }] : [];
  return [...now, ...cutUp(end, length, piece), ...cutUp(0, start, piece)];
}
