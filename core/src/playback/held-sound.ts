/**
 * A recording held for playing and looking: two channels of 16 bits, half the memory of floats and as fine as most recordings
 * are, given out in parts as floats from -1 to 1.
 */

import { FULL_SCALE, toFloat } from '../units';

export type StereoPair = readonly [Float32Array, Float32Array];

/** Arrays of any kind of floats. */
type Samples = Record<number, number>;

export interface HeldSound {
  readonly sampleRate: number;
  /** Samples of each channel. */
  readonly length: number;
  /** Samples [from, to), as far as there are any; a copy. */
  cut(from: number, to: number): StereoPair;
  /** All samples, without another copy on the way: half an hour is large. */
  copyInto(channels: readonly [Samples, Samples]): void;
  /** The sound in columns, see {@link SamplePeaks}. */
  peaks(fromS: number, toS: number, columns: number): SamplePeaks;
}

/** Lowest and highest sample of each column, both channels together, between -1 and 1 against the loudest of the song. */
export interface SamplePeaks {
  readonly lows: Float32Array;
  readonly highs: Float32Array;
}

function loudestSum(left: Int16Array, right: Int16Array): number {
  let most = 1;
  for (let n = 0; n < left.length; n++) most = Math.max(most, Math.abs(left[n] + right[n]));
  return most;
}

/** Keeps the arrays it is given. Throws a RangeError when the channels differ in length. */
export function holdSound([left, right]: readonly [Int16Array, Int16Array], sampleRate: number): HeldSound {
  if (left.length !== right.length) {
    throw new RangeError(
      `channels must be equally long, but hold ${left.length} and ${right.length} samples`,
    );
  }
  const loudest = loudestSum(left, right);
  return {
    sampleRate,
    length: left.length,
    copyInto(channels) {
      [left, right].forEach((samples, c) => {
        const into = channels[c];
        for (let n = 0; n < samples.length; n++) into[n] = samples[n] / FULL_SCALE;
      });
    },
    cut: (from, to) => [toFloat(left.subarray(from, to)), toFloat(right.subarray(from, to))],
    peaks(fromS, toS, columns) {
      const [lows, highs] = [new Float32Array(columns), new Float32Array(columns)];
      for (let c = 0; c < columns; c++) {
        const at = (part: number): number =>
          Math.round((fromS + ((toS - fromS) * part) / columns) * sampleRate);
        const from = Math.max(0, at(c));
        const to = Math.min(left.length, Math.max(from + 1, at(c + 1)));
        let [low, high] = [Infinity, -Infinity];
        for (let n = from; n < to; n++) {
          const value = left[n] + right[n];
          if (value < low) low = value;
          if (value > high) high = value;
        }
        if (low <= high) [lows[c], highs[c]] = [low / loudest, high / loudest];
      }
      return { lows, highs };
    },
  };
}
