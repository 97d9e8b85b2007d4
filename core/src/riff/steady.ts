/** A song at one tempo: for players and programs that want a click that does not move. */
import type { SongDocument } from './document';

/** Beats of one length, over the same time. */
export function atSteadyTempo(document: SongDocument): SongDocument {
  const { beatsS } = document.grid;
  if (beatsS.length < 2) return document;
  const [first, last] = [beatsS[0], beatsS[beatsS.length - 1]];
  const periodS = (last - first) / (beatsS.length - 1);
  return { ...document, grid: { ...document.grid, beatsS: beatsS.map((_, i) => first + i * periodS) } };
}
