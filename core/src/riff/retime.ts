/** The same song in the time of another recording. */
import type { SongDocument } from './document';

/** `toOther` ascends. Riffs and sections are counted in beats and stay; what is placed in seconds moves: beats and loops. */
export function retimed(document: SongDocument, toOther: (timeS: number) => number): SongDocument {
  const { grid, loops } = document;
  return {
    ...document,
    grid: { ...grid, beatsS: grid.beatsS.map(toOther) },
    loops: loops.map((loop) => ({ ...loop, startS: toOther(loop.startS), endS: toOther(loop.endS) })),
  };
}

/** The tab is written to another recording of the song from now on; beats that it does not have are left out of hearing, not of the tab. */
export function changeReference(
  document: SongDocument,
  recordingId: string,
  toOther: (timeS: number) => number,
): SongDocument {
  if (document.recordings.some((r) => r.isReference && r.id === recordingId)) return document;
  const moved = retimed(document, toOther);
  // No beat lies before the recording begins: those are squeezed in front of the first one that it has.
  const firstS = moved.grid.beatsS.find((t) => t >= 0) ?? 0;
  const before = moved.grid.beatsS.filter((t) => t < 0).length;
  const beatsS = moved.grid.beatsS.map((t, n) => (t < 0 ? (firstS * n) / (before + 1) : t));
  const loops = moved.loops
    .map((loop) => ({ ...loop, startS: Math.max(0, loop.startS) }))
    .filter((loop) => loop.endS > loop.startS);
  return {
    ...moved,
    grid: { ...moved.grid, beatsS },
    loops,
    recordings: [{ id: recordingId, isReference: true }],
  };
}
