/** The drawn outline of a recording: the largest absolute sample of each short part, as bytes. */

import { ENVELOPE_RATE } from '../units';

/** Takes the samples of a recording in parts, in order, and keeps nothing of them but the outline. */
export class PeakEnvelope {
  private peaks: number[] = [];
  private frames = 0;

  /** `sampleRate` in Hz. */
  constructor(private readonly sampleRate: number) {}

  /** The next samples, interleaved: a whole number of frames of `channels` samples. */
  add(interleaved: Float32Array, channels: number): void {
    for (let at = 0; at < interleaved.length; at += channels) {
      const part = Math.floor((this.frames * ENVELOPE_RATE) / this.sampleRate);
      while (this.peaks.length <= part) this.peaks.push(0);
      for (let c = 0; c < channels; c++) {
        const level = Math.abs(interleaved[at + c]);
        if (level > this.peaks[part]) this.peaks[part] = level;
      }
      this.frames++;
    }
  }

  /**
   * One byte per 1 / {@link ENVELOPE_RATE} s; 255 is the loudest sample of the whole recording, so that a quiet one is
   * still readable. Silence gives zeros.
   */
  bytes(): Uint8Array {
    const loudest = this.peaks.reduce((most, peak) => Math.max(most, peak), 0);
    return Uint8Array.from(this.peaks, (peak) => (loudest > 0 ? Math.round((255 * peak) / loudest) : 0));
  }
}
