import { describe, expect, it } from 'vitest';
import { agreement, hearGuitarsApart, unlikeShare } from './two-guitars';
import { addChord, RATE, strumOf } from './test-sounds';
import type { KnownForm } from './read-chords';

const alone: KnownForm = {
  beatsS: [],
  repetitionsOf: (timesS) => timesS.map((_, k) => ({ members: [k], passes: 1, riff: '' })),
  lowerGuitar: null,
};
const SECONDS = 10;

/** A power chord each half second through a soft clipper, so that it is a guitar's. */
function part(roots: readonly number[], lateS = 0): Float32Array {
  const out = new Float32Array(SECONDS * RATE);
  for (let i = 0; 0.5 * i < SECONDS - 1; i++) {
    const root = roots[i % roots.length];
    addChord(out, 0.5 * i + 0.2 + lateS, 0.48, [root, root + 7]);
  }
  return out.map((v) => Math.tanh(5 * v));
}

const strums = Array.from({ length: 18 }, (_, i) => strumOf(0.2 + 0.5 * i, 0.68 + 0.5 * i, [40, 43][i % 2]));

describe('two guitars', () => {
  it('that double each other are one part', () => {
    const signal = { channels: [part([40, 43]), part([40, 43], 0.01)], sampleRate: RATE };
    expect(unlikeShare(signal, strums, 0)).toBe(0);
    expect(hearGuitarsApart(signal, strums, 0, alone, () => undefined)).toEqual([]);
  });

  it('that play apart are heard each on its side', () => {
    const signal = { channels: [part([40, 43]), part([57, 52])], sampleRate: RATE };
    expect(unlikeShare(signal, strums, 0)).toBe(1);
    const [left, right] = hearGuitarsApart(signal, strums, 0, alone, () => undefined);
    const roots = (some: typeof left): number[] =>
      [...new Set(some.strums.flatMap((s) => s.rootPc ?? []))].sort();
    expect(left.side).toBe('left');
    expect(roots(left)).toEqual([4, 7]);
    expect(roots(right)).toEqual([4, 9]);
  });

  it('need two channels', () => {
    expect(unlikeShare({ channels: [part([40])], sampleRate: RATE }, strums, 0)).toBe(0);
  });
});

describe('two lists of strums', () => {
  it('agree as far as times and notes do', () => {
    const moved = strums.map((s) => ({ ...s, timeS: s.timeS + 0.02 }));
    expect(agreement(strums, moved)).toBe(1);
    expect(agreement(strums, strums.slice(0, 9))).toBe(0.5);
    expect(agreement(strums, [])).toBe(0);
  });
});
