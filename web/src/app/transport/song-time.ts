/**
 * The time that screens speak of, and that of the sound. They are the same for the recording that the tab is written to; another recording of
 * the song sounds in a time of its own, while everything is seen at its place in the reference.
 */
import type { Loop } from './play-cursor';

export interface SongTime {
  readonly toSound: (songS: number) => number;
  readonly toSong: (soundS: number) => number;
  /** Length of the song as it is seen, seconds; null for that of the sound. */
  readonly songS: number | null;
}

export const SAME_TIME: SongTime = { toSound: (s) => s, toSong: (s) => s, songS: null };

/** A loop of the song in the time of the sound. */
export function soundLoop(time: SongTime, loop: Loop | null): Loop | null {
  return loop && { startS: time.toSound(loop.startS), endS: time.toSound(loop.endS) };
}

export function songLoop(time: SongTime, loop: Loop): Loop {
  return { startS: time.toSong(loop.startS), endS: time.toSong(loop.endS) };
}
