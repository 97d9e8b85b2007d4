import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { noteValues, tripletBeats, writable } from './note-values';

const names = (from: number, to: number, triplets: ReadonlySet<number> = new Set()): string =>
  noteValues(from, to, triplets)
    .map((v) => v.type + (v.isDotted ? '.' : '') + (v.isTriplet ? '3' : ''))
    .join(' ');

describe('note values', () => {
  it('writes whole and dotted values as one', () => {
    expect(names(0, 3840)).toBe('whole');
    expect(names(0, 2880)).toBe('half.');
    expect(names(960, 1680)).toBe('eighth.');
    expect(names(1440, 1920)).toBe('eighth');
  });

  it('keeps the beats to be seen: a value begins on a multiple of half its length', () => {
    expect(names(240, 1200)).toBe('eighth. 16th');
    expect(names(480, 1440)).toBe('quarter');
  });

  it('writes thirds of a quarter as triplets, and a whole quarter among them plainly', () => {
    const triplets = tripletBeats([0, 320, 640, 960]);
    expect(names(0, 320, triplets)).toBe('eighth3');
    expect(names(320, 960, triplets)).toBe('quarter3');
    expect(names(0, 960, triplets)).toBe('quarter');
    expect(names(640, 1920, triplets)).toBe('eighth3 quarter');
  });

  it('lasts as long as the span, whatever begins and ends in the bar', () => {
    const instant = fc.nat(7680).map(writable);
    fc.assert(
      fc.property(fc.array(instant, { minLength: 2, maxLength: 12 }), (instants) => {
        const cuts = [...new Set([0, ...instants])].sort((a, b) => a - b);
        const triplets = tripletBeats(cuts);
        for (let i = 1; i < cuts.length; i++) {
          const values = noteValues(cuts[i - 1], cuts[i], triplets);
          const lasts = values.reduce((sum, v) => sum + v.ticks, 0);
          // A 64th inside of a triplet has no value of its own.
          expect(Math.abs(lasts - (cuts[i] - cuts[i - 1]))).toBeLessThanOrEqual(40);
        }
      }),
    );
  });
});
