import { describe, expect, it } from 'vitest';
import { WHOLE_BAND } from '@wild-needle/core/parts';
import { durationWords, levelWords, progressWords } from './instrument-words';

describe('the words of the instruments', () => {
  it('say how long it takes', () => {
    expect([0.2, 24, 89, 91, 660].map(durationWords)).toEqual([
      'about 1 s',
      'about 24 s',
      'about 89 s',
      'about 2 min',
      'about 11 min',
    ]);
  });

  it('say how loud a part is, or why it is not heard', () => {
    const mix = { ...WHOLE_BAND, levelsDb: { ...WHOLE_BAND.levelsDb, drums: -10, voice: 6 } };
    expect(levelWords(mix, 'drums')).toBe('−10 dB');
    expect(levelWords(mix, 'bass')).toBe('0 dB');
    expect(levelWords(mix, 'voice')).toBe('+6 dB');
    expect(levelWords({ ...mix, silent: ['bass'] }, 'bass')).toBe('silent');
    expect(levelWords({ ...mix, silent: ['bass'], alone: 'bass' }, 'bass')).toBe('alone');
  });

  it('say how far it is, in the unit that fits', () => {
    const separation = {
      engine: 'network',
      status: 'running',
      ready: [3, 4, 5, 6],
      pieces: 10,
      byteLength: 1,
      missing: [],
      problem: null,
    } as const;
    const at = (secondsLeft: number | null): string | null =>
      progressWords({ ...separation, ready: [...separation.ready], missing: [], secondsLeft });
    expect(at(396)).toBe('4 of 11 min');
    expect(at(12)).toBe('8 of 20 s');
    expect(at(null)).toBeNull();
  });
});
