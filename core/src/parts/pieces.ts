/**
 * A recording is taken apart in pieces, each by itself and in any order. A piece is read with what is around it, and keeps a little of
 * that, over which neighbours are faded into each other.
 */
import { sampleOf } from '../units';
import { PARTS, type BandParts, type Part } from './parts';

/** What the network was made for; higher than that there is little of a guitar. */
export const SEPARATION_RATE = 44_100;
/** Length of a piece without its margins. */
export const PIECE_S = 6;
/** Kept on both sides of a piece; whole samples at every rate that is played. */
export const MARGIN_S = 0.08;
/** Samples that a piece is made of: as much as the network reads at a time, 7.8 s. */
export const WINDOW_SAMPLES = 343_980;
/** Channels of a stored piece: left and right of each part, in the order of {@link PARTS}. */
export const PIECE_CHANNELS = 2 * PARTS.length;

const PIECE = PIECE_S * SEPARATION_RATE;
const AROUND = (WINDOW_SAMPLES - PIECE) / 2;
const MARGIN = MARGIN_S * SEPARATION_RATE;
/** Samples of the window that are kept, [from, to). */
export const KEPT_SAMPLES = { from: AROUND - MARGIN, to: AROUND + PIECE + MARGIN } as const;

/** Pieces of a recording of so many seconds; at least one. */
export function pieceCount(durationS: number): number {
  return Math.max(1, Math.ceil(durationS / PIECE_S));
}

/** First sample of the window that piece `index` is made of; under 0 for the first. */
export function windowStart(index: number): number {
  return index * PIECE - AROUND;
}

/** All pieces: those of the stretch that is listened to first, then on to the end, then from the start. */
export function pieceOrder(count: number, fromS: number): number[] {
  const first = Math.min(count - 1, Math.max(0, Math.floor(fromS / PIECE_S)));
  return Array.from({ length: count }, (_, i) => (first + i) % count);
}

/** As a piece is stored and sent: 16 bits, a sample of each of {@link PIECE_CHANNELS} after the other. */
export function interleaveParts(parts: BandParts): Int16Array {
  const channels = PARTS.flatMap((part) => parts[part]);
  const [{ length }] = channels;
  const interleaved = new Int16Array(length * PIECE_CHANNELS);
  // Written in order, which is twice as fast as one channel after the other.
  for (let n = 0, at = 0; n < length; n++) {
    for (const channel of channels) interleaved[at++] = sampleOf(channel[n]);
  }
  return interleaved;
}

/** The pieces that the samples [from, to) need, margins included. */
export function piecesOf(from: number, to: number, sampleRate: number): number[] {
  const first = Math.max(0, Math.floor((from / sampleRate - MARGIN_S) / PIECE_S));
  const last = Math.floor((to / sampleRate + MARGIN_S) / PIECE_S);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i);
}

/** What is kept of a window that was taken apart. */
export function keptOf({ drums, bass, voice, guitars }: BandParts): BandParts {
  const { from, to } = KEPT_SAMPLES;
  const kept = ([left, right]: BandParts[Part]): BandParts[Part] => [
    left.subarray(from, to),
    right.subarray(from, to),
  ];
  return { drums: kept(drums), bass: kept(bass), voice: kept(voice), guitars: kept(guitars) };
}
