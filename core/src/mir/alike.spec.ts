import { describe, expect, it } from 'vitest';
import { groupAlike } from './alike';
import type { HeardSection } from './types';

const SECTION: HeardSection = {
  startS: 0,
  endS: 8,
  label: 'A',
  transposeOf: null,
  startBar: 0,
  barsPerPass: 2,
  passes: 2,
};
const DOWNBEATS = [0, 2, 4, 6, 8];

describe('alike strums', () => {
  it('stand at the same place of another pass', () => {
    expect(groupAlike([0, 1, 4.02, 5.5], [SECTION], DOWNBEATS)).toEqual([[0, 2], [1], [2, 0], [3]]);
  });

  it('belong to the bar that they come a little early for', () => {
    expect(groupAlike([0, 3.98], [SECTION], DOWNBEATS)).toEqual([
      [0, 1],
      [1, 0],
    ]);
  });

  it('are not those of another riff, or of none', () => {
    const other = { ...SECTION, label: 'B', startBar: 2, passes: 1 };
    expect(groupAlike([0, 4, 9], [{ ...SECTION, passes: 1 }, other], DOWNBEATS)).toEqual([[0], [1], [2]]);
  });
});
