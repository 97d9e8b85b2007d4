/** A recording as it is listened to: one ear, a place on the stage, a part of the sound; for measuring it so. */
import { isolate, type Isolation } from '../dsp';
import type { StereoSignal } from '../mir';
import type { StereoPair } from './held-sound';

/** `isolation` null leaves the sound whole; what comes to both ears alike is one channel. */
export function throughEars(
  signal: StereoSignal,
  isolation: Isolation | null,
  toEars: (pair: StereoPair) => StereoPair,
): StereoSignal {
  const [left, right = left] = signal.channels;
  const heard = isolation
    ? isolate([left, right], signal.sampleRate, isolation, 0, left.length)
    : ([left, right] as const);
  const [a, b] = toEars(heard);
  return { channels: a === b ? [a] : [a, b], sampleRate: signal.sampleRate };
}
