/** A mix at another pitch, part by part: shorter where it is higher. A time stretcher gives the time back. */
import type { PitchChange } from '../dsp';
import type { StereoPair } from './held-sound';
import type { Mix } from './mix';

/** Samples [from, to) at the new pitch; `length`: of the sound as it is. */
export function atOtherPitch(mix: Mix, change: PitchChange, length: number): Mix {
  return (from, to): StereoPair => {
    const source = change.sourceOf(from, to);
    const [start, end] = [Math.max(0, source.from), Math.min(length, source.to)];
    const pair = mix(start, Math.max(start, end));
    const [left, right] = pair.map((channel) => {
      const padded = new Float32Array(source.to - source.from);
      padded.set(channel, start - source.from);
      return change.apply(padded, from, to);
    });
    return [left, right];
  };
}
