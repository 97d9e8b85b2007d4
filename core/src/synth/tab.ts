/**
 * The written tab as sound: one guitar that follows the recording's beats and pitch, so that both can be compared by ear.
 * Played exactly in time; every stroke has a seed of its own, so that a part sounds the same whichever way it was cut.
 */
import { createRandom } from '../units';
import { performDocument, swapGuitars, type PlayedStrum, type SongDocument } from '../riff';
import { renderGuitar } from './band';

export interface TabOptions {
  readonly sampleRate: number;
  readonly seed: number;
}

export interface TabPlayer {
  /** Samples [from, to) of the recording's time; one channel, silent where nothing is written. */
  render(from: number, to: number): Float32Array;
  /** Time of the first stroke, s; null when nothing is written. */
  readonly startS: number | null;
}

/** Between crunch and high gain: a fifth growls, and its notes stay apart. */
const DRIVE = 9;
/** Filters of the amplifier have settled after this. */
const WARM_UP_S = 0.1;
/** Strokes that began longer ago are no longer heard. */
const LONGEST_S = 12;

export function createTabPlayer(document: SongDocument, { sampleRate, seed }: TabOptions): TabPlayer {
  // Both guitars through one amplifier; what they play together is struck together.
  const strums = [
    ...performDocument(document),
    ...(document.guitar2 ? performDocument(swapGuitars(document)) : []),
  ].sort((a, b) => a.timeS - b.timeS);
  const a4Hz = 440 * 2 ** (document.referenceOffsetCents / 1200);
  return {
    startS: strums.length > 0 ? strums[0].timeS : null,
    render(from, to) {
      const [fromS, toS] = [from / sampleRate, to / sampleRate];
      const sounding = strums.filter((s) => s.endS > fromS && s.timeS < toS && s.timeS > fromS - LONGEST_S);
      const out = new Float32Array(to - from);
      if (sounding.length === 0) return out;
      const startS = Math.min(fromS, sounding[0].timeS) - WARM_UP_S;
      const start = Math.floor(startS * sampleRate);
      const shifted = sounding.map((s): PlayedStrum => ({
        ...s,
        timeS: s.timeS - start / sampleRate,
        endS: s.endS - start / sampleRate,
        notes: s.notes.map((n) => ({ ...n, endS: n.endS - start / sampleRate })),
      }));
      // Amplifiers act on the sum of all strings: all strokes of the part go through one.
      const played = renderGuitar(
        shifted,
        a4Hz,
        to - start,
        { sampleRate, drive: DRIVE, scatterS: 0 },
        ({ timeS }) => createRandom(seed + Math.round(1000 * (timeS + start / sampleRate))),
      );
      out.set(played.subarray(from - start));
      return out;
    },
  };
}
