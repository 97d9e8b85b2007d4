import { createRequire } from 'node:module';
import type * as Wavefile from 'wavefile';
import { describe, expect, it } from 'vitest';
import { PLAIN_SONG } from '@wild-needle/core/riff';
import { SONG } from '../../../core/src/riff/test-grid-song';
import { tabSound } from './tab-sound';

const { WaveFile } = createRequire(import.meta.url)('wavefile') as typeof Wavefile;

describe('the sound of a tab', () => {
  it('is a file that sounds from its first stroke on and is silent before', () => {
    const wav = new WaveFile(tabSound(SONG));
    const samples = Float64Array.from(wav.getSamples(false) as unknown as ArrayLike<number>);
    const rate = 44_100;
    const loudest = (fromS: number, toS: number): number =>
      samples.subarray(fromS * rate, toS * rate).reduce((most, x) => Math.max(most, Math.abs(x)), 0);
    // The first strum stands one second into the song, the second three tenths later.
    expect(loudest(0, 0.98)).toBeLessThan(30);
    expect(loudest(1, 1.2)).toBeGreaterThan(1000);
    expect(samples.length / rate).toBeGreaterThan(6 * 4.8);
  });

  it('is refused in a sentence where nothing sounds', () => {
    expect(() => tabSound(PLAIN_SONG)).toThrow('Nothing is written that a section plays: the tab is silent');
  });
});
