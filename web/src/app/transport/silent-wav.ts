/** Silence as a file: what a song without a recording plays on, so that its tab, its click and its loops have a clock. */

/** Nothing is in it that a higher rate would carry. */
const RATE = 8000;
const HEADER_BYTES = 44;
/** The middle of what one byte can say. */
const ZERO = 128;

/** Mono, 8 bits (Multimedia Programming Interface and Data Specifications 1.0, IBM and Microsoft 1991: RIFF WAVE). */
export function silentWav(durationS: number): ArrayBuffer {
  const length = Math.ceil(durationS * RATE);
  const bytes = new ArrayBuffer(HEADER_BYTES + length);
  const view = new DataView(bytes);
  const word = (at: number, letters: string): void =>
    letters.split('').forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  word(0, 'RIFF');
  view.setUint32(4, HEADER_BYTES - 8 + length, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, RATE, true);
  view.setUint32(28, RATE, true);
  view.setUint16(32, 1, true);
  view.setUint16(34, 8, true);
  word(36, 'data');
  view.setUint32(40, length, true);
  new Uint8Array(bytes, HEADER_BYTES).fill(ZERO);
  return bytes;
}
