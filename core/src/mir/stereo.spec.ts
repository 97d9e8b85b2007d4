import { describe, expect, it } from 'vitest';
import { splitStereo } from './stereo';
import { RATE } from './test-sounds';

describe('middle and sides', () => {
  const tone = Float32Array.from({ length: 2000 }, (_, i) => Math.sin(i / 9));
  const other = Float32Array.from({ length: 2000 }, (_, i) => Math.sin(i / 7));

  it('are told apart for two guitars, and not for one channel or two that are the same', () => {
    expect(splitStereo({ channels: [tone], sampleRate: RATE }).side).toBeNull();
    expect(splitStereo({ channels: [tone, tone], sampleRate: RATE }).side).toBeNull();
    expect(splitStereo({ channels: [tone, other], sampleRate: RATE }).side).not.toBeNull();
  });

  it('lose nothing when one channel is turned over', () => {
    const { mid, side } = splitStereo({ channels: [tone, tone.map((v) => -v)], sampleRate: RATE });
    expect(side).toBeNull();
    expect(mid[100]).toBeCloseTo(tone[100], 6);
  });
});
