/** A small recording of power chords, one after the other, for what compares recordings. */
import { wavHeader } from '../features/takes/wav-of-take';

const RATE = 22050;

/** Each chord sounds `secondsEach`, from `leadS` on; the same for the same roots. */
export function progressionFile(roots: readonly number[], secondsEach: number, leadS = 0): Buffer {
  const samples = new Int16Array(Math.ceil((leadS + roots.length * secondsEach) * RATE));
  roots.forEach((root, n) => {
    const start = Math.round((leadS + n * secondsEach) * RATE);
    const length = Math.round(secondsEach * RATE);
    for (let i = 0; i < length && start + i < samples.length; i++) {
      let value = 0;
      for (const midi of [root, root + 7, root + 12]) {
        const hz = 440 * 2 ** ((midi - 69) / 12);
        for (let k = 1; k <= 4; k++) value += Math.sin((2 * Math.PI * k * hz * i) / RATE) / k;
      }
      samples[start + i] = 3000 * value * Math.exp((-3 * i) / length);
    }
  });
  const bytes = Buffer.from(samples.buffer);
  return Buffer.concat([wavHeader({ sampleRate: RATE, byteLength: bytes.length }), bytes]);
}
