import { describe, expect, it } from 'vitest';
import { createTunerPitch, TUNER_WINDOW } from './tuner-pitch';

const RATE = 48_000;

/** A string's partials, with white noise this far under it. */
function string(freqHz: number, noiseDb: number | null): Float32Array {
  const tone = Float32Array.from({ length: TUNER_WINDOW }, (_, n) =>
    [0.3, 0.15, 0.1, 0.05].reduce(
      (sum, level, h) => sum + level * Math.sin((2 * Math.PI * freqHz * (h + 1) * n) / RATE + h),
      0,
    ),
  );
  if (noiseDb === null) return tone;
  const rms = Math.sqrt(tone.reduce((s, v) => s + v * v, 0) / tone.length);
  let seed = 7;
  const random = (): number => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647;
  // Even noise between -a and a has a power of a² / 3.
  const peak = rms * 10 ** (-noiseDb / 20) * Math.sqrt(3);
  return tone.map((v) => v + peak * (2 * random() - 1));
}

describe('the tuner', () => {
  const pitchOf = createTunerPitch();
  const frequencies = Array.from({ length: 46 }, (_, i) => 30 * 1.06 ** i).filter((hz) => hz <= 400);

  it.each([
    ['clean', null],
    ['with noise 20 dB under them', 20],
  ] as const)('reads tones from 30 to 400 Hz within a cent, %s', (_, noiseDb) => {
    for (const freqHz of frequencies) {
      const read = pitchOf(string(freqHz, noiseDb), RATE);
      expect(Math.abs(1200 * Math.log2((read ?? 1) / freqHz)), `${freqHz} Hz`).toBeLessThan(1);
    }
  });

  it('says nothing of silence and of noise', () => {
    expect(pitchOf(new Float32Array(TUNER_WINDOW), RATE)).toBeNull();
    let seed = 3;
    const noise = Float32Array.from(
      { length: TUNER_WINDOW },
      () => (seed = (seed * 16_807) % 2_147_483_647) / 2_147_483_647 - 0.5,
    );
    expect(pitchOf(noise, RATE)).toBeNull();
  });
});
