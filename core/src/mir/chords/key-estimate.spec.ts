import { describe, expect, it } from 'vitest';
import { estimateKey, estimateSectionKeys } from './key-estimate';
import { strumOf } from '../test-sounds';

/** Half-second power chords on these roots, from `fromS` on. */
const play = (fromS: number, roots: readonly number[]) =>
  roots.map((root, i) => strumOf(fromS + i / 2, fromS + i / 2 + 0.5, root));
const E_MINOR = [40, 43, 45, 47, 40, 43, 50, 40, 40, 45, 47, 40];
const moved = (semitones: number): number[] => E_MINOR.map((root) => root + semitones);

describe('keys of sections', () => {
  it('are that of the song where nothing changes', () => {
    const strums = [...play(0, E_MINOR), ...play(6, E_MINOR)];
    const keys = estimateSectionKeys(strums, [
      { startS: 0, endS: 6 },
      { startS: 6, endS: 12 },
    ]);
    expect(keys).toEqual([
      { tonic: 'E', mode: 'minor' },
      { tonic: 'E', mode: 'minor' },
    ]);
  });

  it('are their own where the song moves', () => {
    const strums = [...play(0, E_MINOR), ...play(6, E_MINOR), ...play(12, moved(3))];
    const keys = estimateSectionKeys(strums, [
      { startS: 0, endS: 12 },
      { startS: 12, endS: 18 },
    ]);
    expect(keys.map((key) => key?.tonic)).toEqual(['E', 'G']);
  });

  it('are not read from a few strums', () => {
    const strums = [...play(0, E_MINOR), ...play(6, [49, 51, 49])];
    const [, last] = estimateSectionKeys(strums, [
      { startS: 0, endS: 6 },
      { startS: 6, endS: 8 },
    ]);
    expect(last?.tonic).toBe('E');
  });

  it('are none without a pitch', () => {
    expect(estimateSectionKeys([], [{ startS: 0, endS: 2 }])).toEqual([null]);
  });
});

describe('key', () => {
  it('hears E minor in E, G, A and B', () => {
    const strums = [40, 43, 45, 40, 47, 40].map((root, i) => strumOf(i, i + 1, root));
    expect(estimateKey(strums)?.key).toEqual({ tonic: 'E', mode: 'minor' });
  });

  it('has no key without a pitch', () => {
    expect(estimateKey([])).toBeNull();
  });
});
