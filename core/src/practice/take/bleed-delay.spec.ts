import { describe, expect, it } from 'vitest';
import { createRandom, gaussian } from '../../units';
import { bleedDelay } from './bleed-delay';

const RATE = 22_050;
const BEATS = [0.5, 1, 1.5, 2, 2.5, 3];
const BEGINS_S = 2.4;

/** Noise of an input, clicks of a loudspeaker so much later than the beats, and a loud player from the fifth beat on. */
function take(delayS: number, clickDb: number): Float32Array {
  const random = createRandom(9);
  const samples = Float32Array.from({ length: 4 * RATE }, () => 1e-4 * gaussian(random));
  const put = (fromS: number, level: number, hz: number): void => {
    const from = Math.round(fromS * RATE);
    for (let n = 0; n < 0.05 * RATE; n++) {
      samples[from + n] += level * Math.exp((-40 * n) / RATE) * Math.sin((2 * Math.PI * hz * n) / RATE);
    }
  };
  for (const beat of BEATS) put(beat + delayS + 0.003, 0.5 * 10 ** (clickDb / 20), 2500);
  for (const beat of BEATS.slice(4)) put(beat + delayS + 0.02, 0.5, 110);
  return samples;
}

describe('the delay of a device', () => {
  it.each([0.012, 0.046, 0.119])('is heard from soft clicks before the player begins: %f s', (delayS) => {
    const heard = bleedDelay(take(delayS, -40), RATE, BEATS, BEGINS_S);
    expect(Math.abs((heard ?? 0) - delayS)).toBeLessThan(0.005);
  });

  it('is not made up where nothing is heard, nothing is counted, or the player begins at once', () => {
    expect(bleedDelay(take(0.05, -120), RATE, BEATS, BEGINS_S)).toBeNull();
    expect(bleedDelay(take(0.05, -40), RATE, [], BEGINS_S)).toBeNull();
    expect(bleedDelay(take(0.05, -40), RATE, BEATS, 0.4)).toBeNull();
  });
});
