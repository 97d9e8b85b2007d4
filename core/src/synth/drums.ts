/** A drum kit from sine sweeps and filtered noise: enough to keep time and to stand in the way of the ear. */
import type { Random } from '../units';
import { applyBiquad, highPass } from '../dsp';

export type DrumSound = 'kick' | 'snare' | 'hat' | 'crash';

function noiseBurst(
  length: number,
  sampleRate: number,
  decayS: number,
  cutHz: number,
  random: Random,
): Float32Array {
  const noise = Float32Array.from({ length }, () => 2 * random() - 1);
  const bright = applyBiquad(noise, highPass(cutHz, sampleRate));
  return bright.map((v, n) => v * Math.exp(-n / (decayS * sampleRate)));
}

/** One hit from rest, peak about 1. */
export function renderDrum(sound: DrumSound, sampleRate: number, random: Random): Float32Array {
  switch (sound) {
    case 'kick': {
      const hit = new Float32Array(Math.round(0.22 * sampleRate));
      let phase = 0;
      for (let n = 0; n < hit.length; n++) {
        const t = n / sampleRate;
        phase += (2 * Math.PI * (48 + 110 * Math.exp(-t / 0.025))) / sampleRate;
        hit[n] = Math.sin(phase) * Math.exp(-t / 0.07) * Math.min(1, n / 40);
      }
      return hit;
    }
    case 'snare': {
      const hit = noiseBurst(Math.round(0.2 * sampleRate), sampleRate, 0.06, 1200, random);
      for (let n = 0; n < hit.length; n++) {
        const t = n / sampleRate;
        hit[n] = 0.6 * hit[n] + 0.5 * Math.sin(2 * Math.PI * 190 * t) * Math.exp(-t / 0.05);
      }
      return hit;
    }
    case 'hat':
      return noiseBurst(Math.round(0.06 * sampleRate), sampleRate, 0.015, 7000, random);
    case 'crash':
      return noiseBurst(Math.round(1.4 * sampleRate), sampleRate, 0.45, 4000, random);
  }
}
