/**
 * Sound that waits in the stretcher to be played. A long recording waits in floats of 16 bits (binary16 of IEEE 754) where the browser
 * has them: half the memory, and eleven bits at every loudness, so that what is rounded away lies 66 dB and more under the music.
 * The stretcher takes its blocks out of whatever array it is given, by value.
 */
export type WaitingSound = Float32Array<ArrayBuffer> | Float16Array<ArrayBuffer>;

/** Silence of so many samples. */
export function waitingSound(length: number, isHalf: boolean): WaitingSound {
  return isHalf ? new Float16Array(length) : new Float32Array(length);
}

export function isHalf(sound: WaitingSound): boolean {
  return typeof Float16Array === 'function' && sound instanceof Float16Array;
}

/** As halves, where the browser has them; the floats are empty afterwards: a collector that comes later meets half an hour too much. */
export function inHalves(floats: Float32Array<ArrayBuffer>): WaitingSound {
  if (typeof Float16Array !== 'function') return floats;
  const halves = new Float16Array(floats);
  structuredClone(null, { transfer: [floats.buffer] });
  return halves;
}
