import { describe, expect, it } from 'vitest';
import { createRandom } from '../../units';
import { splitStereo } from '../stereo';
import { findStrokeCandidates } from './stroke-candidates';
import { STROKE_FEATURE_SPANS, STROKE_FEATURES } from './stroke-features';

const RATE = 22050;

/** Decaying tones at these times, over a little noise. */
function plucks(timesS: readonly number[], gain = 1): Float32Array {
  const random = createRandom(6);
  const out = Float32Array.from({ length: 4 * RATE }, () => 0.002 * gain * (2 * random() - 1));
  for (const timeS of timesS) {
    const start = Math.round(timeS * RATE);
    for (let n = 0; n < 0.4 * RATE; n++) {
      const decay = Math.exp(-n / (0.15 * RATE)) * Math.min(1, n / 60);
      out[start + n] += 0.3 * gain * decay * (Math.sin(n * 0.03) + 0.5 * Math.sin(n * 0.0601 + 1));
    }
  }
  return out;
}

const TIMES = [0.5, 1, 1.6, 2.2, 3];

describe('stroke candidates', () => {
  it('have the same number of finite features each', () => {
    const { timesS, features } = findStrokeCandidates(
      splitStereo({ channels: [plucks(TIMES)], sampleRate: RATE }),
      RATE,
    );
    expect(features).toHaveLength(timesS.length * STROKE_FEATURES);
    expect(features.every((v) => Number.isFinite(v) && Math.abs(v) < 12)).toBe(true);
    for (const time of TIMES) expect(timesS.some((t) => Math.abs(t - time) < 0.02)).toBe(true);
  });

  it('look the same however loud the recording is', () => {
    const look = (gain: number): Float32Array =>
      findStrokeCandidates(splitStereo({ channels: [plucks(TIMES, gain)], sampleRate: RATE }), RATE).features;
    const [loud, soft] = [look(1), look(0.5)];
    const first = loud.subarray(...STROKE_FEATURE_SPANS.levels);
    first.forEach((v, i) => expect(Math.abs(v - soft[i])).toBeLessThan(0.1));
  });

  it('leave the features of the sides at nothing for one channel', () => {
    const { features } = findStrokeCandidates(
      splitStereo({ channels: [plucks(TIMES)], sampleRate: RATE }),
      RATE,
    );
    expect(features.subarray(...STROKE_FEATURE_SPANS.side).every((v) => v === 0)).toBe(true);
  });

  it('are none in silence', () => {
    const silence = splitStereo({ channels: [new Float32Array(RATE)], sampleRate: RATE });
    expect(findStrokeCandidates(silence, RATE).timesS).toEqual([]);
  });
});
