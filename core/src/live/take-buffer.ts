/** The last seconds of an input, found by the time of the device's clock. */

/** A round and its windows are shorter than this. */
const KEPT_S = 90;

export class TakeBuffer {
  private pieces: { readonly startS: number; readonly samples: Float32Array }[] = [];

  constructor(readonly sampleRate: number) {}

  /** Where what was heard ends; null before anything. */
  get endS(): number | null {
    const last = this.pieces.at(-1);
    return last ? last.startS + last.samples.length / this.sampleRate : null;
  }

  /** Pieces come in order of time. */
  add(startS: number, samples: Float32Array): void {
    this.pieces.push({ startS, samples });
    const from = startS - KEPT_S;
    const first = this.pieces.findIndex((p) => p.startS + p.samples.length / this.sampleRate >= from);
    if (first > 0) this.pieces = this.pieces.slice(first);
  }

  clear(): void {
    this.pieces = [];
  }

  /** From one time to another; silent where nothing was heard. */
  slice(fromS: number, toS: number): Float32Array {
    const out = new Float32Array(Math.max(0, Math.round((toS - fromS) * this.sampleRate)));
    for (const { startS, samples } of this.pieces) {
      const at = Math.round((startS - fromS) * this.sampleRate);
      if (at >= out.length || at + samples.length <= 0) continue;
      const from = Math.max(0, -at);
      out.set(samples.subarray(from, Math.min(samples.length, out.length - at)), at + from);
    }
    return out;
  }
}
