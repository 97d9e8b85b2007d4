/** The drawn outline of a recording: the largest absolute sample of each short part, as bytes. */

import { ENVELOPE_RATE } from '../units';

/**
 * `channels` share a length. Returns one byte per 1 / {@link ENVELOPE_RATE} s; 255 is the loudest sample of the
 * whole recording, so that a quiet one is still readable. Silence gives zeros.
 */
export function peakEnvelope(channels: readonly Float32Array[], sampleRate: number): Uint8Array {
  const length = channels[0]?.length ?? 0;
  const count = Math.ceil((length / sampleRate) * ENVELOPE_RATE);
  const peaks = new Float32Array(count);
  let loudest = 0;
  for (let k = 0; k < count; k++) {
    const from = Math.floor((k * sampleRate) / ENVELOPE_RATE);
    const to = Math.min(length, Math.floor(((k + 1) * sampleRate) / ENVELOPE_RATE));
    let peak = 0;
    for (const samples of channels) {
      for (let i = from; i < to; i++) {
        const level = Math.abs(samples[i]);
        if (level > peak) peak = level;
      }
    }
    peaks[k] = peak;
    if (peak > loudest) loudest = peak;
  }
  const bytes = new Uint8Array(count);
  if (loudest > 0) for (let k = 0; k < count; k++) bytes[k] = Math.round((255 * peaks[k]) / loudest);
  return bytes;
}
