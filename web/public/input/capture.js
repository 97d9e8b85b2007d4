/**
 * What an input hears, in pieces, each with the time of the device's clock at which it began. A worklet can't be part of a bundle: this
 * file is served as it is.
 */
/* global AudioWorkletProcessor, registerProcessor, currentTime, sampleRate */

/** So many samples a piece: about 45 ms. */
const PIECE = 2048;

class Capture extends AudioWorkletProcessor {
  constructor() {
    super();
    this.pieces = [];
    this.filled = 0;
    this.startS = 0;
  }

  process([channels]) {
    // Nothing is connected, or the device was unplugged.
    if (channels.length === 0) return true;
    const length = channels[0].length;
    if (this.pieces.length !== channels.length) {
      this.pieces = channels.map(() => new Float32Array(PIECE));
      this.filled = 0;
    }
    if (this.filled === 0) this.startS = currentTime;
    channels.forEach((samples, c) => this.pieces[c].set(samples, this.filled));
    this.filled += length;
    if (this.filled >= PIECE) {
      const { pieces, startS } = this;
      this.port.postMessage(
        { startS, sampleRate, channels: pieces },
        pieces.map((p) => p.buffer),
      );
      this.pieces = pieces.map(() => new Float32Array(PIECE));
      this.filled = 0;
    }
    return true;
  }
}

registerProcessor('wn-capture', Capture);
