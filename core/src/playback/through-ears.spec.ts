import { describe, expect, it } from 'vitest';
import { throughEars } from './through-ears';

const signal = { channels: [Float32Array.of(1, 2), Float32Array.of(3, 4)], sampleRate: 22050 };

describe('a recording through ears', () => {
  it('is itself where nothing is isolated', () => {
    expect(throughEars(signal, null, (pair) => pair).channels).toEqual(signal.channels);
  });

  it('is one channel where both ears hear the same', () => {
    const { channels } = throughEars(signal, null, ([, right]) => [right, right]);
    expect(channels).toEqual([signal.channels[1]]);
  });

  it('keeps its length when a place is isolated', () => {
    const long = { channels: [new Float32Array(9000).fill(0.1), new Float32Array(9000)], sampleRate: 22050 };
    const pan = { position: 0, width: 0.5, isInside: true };
    const { channels } = throughEars(long, { pan, band: null, isWithoutHits: false }, (pair) => pair);
    expect(channels.map((c) => c.length)).toEqual([9000, 9000]);
  });
});
