import { describe, expect, it } from 'vitest';
import { createRandom, gaussian } from '../../units';
import { firstSoundDelay } from './first-sound';

const RATE = 22_050;
const BEATS = [0.5, 1, 1.5, 2, 2.5];

/** Noise of an input, a soft band from a beat on, and a player far louder some time after it. */
function take(bandS: number, bandDb: number, playerS: number): Float32Array {
  const random = createRandom(4);
  const samples = Float32Array.from({ length: 3 * RATE }, () => 3e-5 * gaussian(random));
  const put = (fromS: number, level: number, hz: number): void => {
    for (let n = Math.round(fromS * RATE); n < samples.length; n++) {
      samples[n] += level * Math.sin((2 * Math.PI * hz * n) / RATE);
    }
  };
  put(bandS, 10 ** (bandDb / 20), 330);
  put(playerS, 0.3, 110);
  return samples;
}

describe('the delay from the first that is heard', () => {
  it.each([
    [0.02, -60],
    [0.046, -55],
    [0.088, -62],
  ])('is that of a band %f s late at %i dB, when the player comes after it', (delayS, db) => {
    const heard = firstSoundDelay(
      take(2 + delayS + 0.003, db, 2 + delayS + 0.02),
      RATE,
      BEATS,
      2 + delayS + 0.02,
    );
    expect(Math.abs((heard ?? 1) - delayS)).toBeLessThan(0.004);
  });

  it('is not made up where the player begins at once, nothing sounds, or there is no quiet before', () => {
    const together = take(2.05, -60, 2.05);
    expect(firstSoundDelay(together, RATE, BEATS, 2.05)).toBeNull();
    expect(firstSoundDelay(new Float32Array(3 * RATE), RATE, BEATS, 2)).toBeNull();
    expect(firstSoundDelay(together, RATE, BEATS, 0.3)).toBeNull();
    expect(firstSoundDelay(take(2.03, -60, 2.06), RATE, [], 2.06)).toBeNull();
  });
});
