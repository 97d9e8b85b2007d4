import { describe, expect, it } from 'vitest';
import { linkByAverage, type Linkage } from './average-linkage';

/** Likeness by pairs, 'earlier later shift' or 'earlier later'; 0 for all others. */
function link(count: number, pairs: Record<string, number>, over: Partial<Linkage> = {}): unknown {
  return linkByAverage({
    weights: new Array<number>(count).fill(1),
    likeness: (a, b, shift) => pairs[`${a} ${b} ${shift}`] ?? (shift === 0 ? (pairs[`${a} ${b}`] ?? 0) : 0),
    steps: 12,
    atLeast: 0.6,
    movedCosts: 0.1,
    ...over,
  }).map(({ first, shift }) => (shift === 0 ? first : `${first}+${shift}`));
}

describe('groups of what is alike', () => {
  it('joins what is alike and leaves the rest alone', () => {
    expect(link(4, { '0 2': 0.9, '1 3': 0.5 })).toEqual([0, 1, 0, 3]);
    expect(link(0, {})).toEqual([]);
  });

  it('joins by the mean of all members, so that one chance likeness does not', () => {
    expect(link(3, { '0 1': 0.9, '1 2': 0.8, '0 2': 0.1 })).toEqual([0, 0, 2]);
    expect(link(3, { '0 1': 0.9, '1 2': 0.8, '0 2': 0.5 })).toEqual([0, 0, 0]);
  });

  it('counts each thing by its weight', () => {
    const pairs = { '0 1': 0.9, '1 2': 0.8, '0 2': 0.1 };
    expect(link(3, pairs, { weights: [1, 9, 1] })).toEqual([0, 0, 0]);
  });

  // A figure of an octave: moved up by 5 and then by 9 is moved up by 2.
  it('adds up what is moved, around the circle', () => {
    expect(link(3, { '0 1 5': 0.9, '1 2 9': 0.95, '0 2 2': 0.9 })).toEqual([0, '0+5', '0+2']);
  });

  it('takes something off what is moved', () => {
    expect(link(2, { '0 1 5': 0.65 })).toEqual([0, 1]);
    expect(link(2, { '0 1 5': 0.65, '0 1': 0.61 })).toEqual([0, 0]);
  });
});
