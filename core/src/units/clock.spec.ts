import { describe, expect, it } from 'vitest';
import { clock, minutes } from './clock';
import { listInWords } from './words';

describe('times', () => {
  it.each([
    [0, '0:00.0'],
    [25.94, '0:25.9'],
    // Cut off and not rounded: no 0:60.0.
    [59.97, '0:59.9'],
    [75.3, '1:15.3'],
    [-1, '0:00.0'],
  ])('of %f s are read as %s', (time, text) => {
    expect(clock(time)).toBe(text);
  });

  it('of whole recordings are told in minutes', () => {
    expect(minutes(192.4)).toBe('3:12');
    expect(minutes(59.6)).toBe('1:00');
  });
});

describe('a list', () => {
  it.each([
    [[], ''],
    [[4], '4'],
    [[1, 2, 4], '1, 2 and 4'],
    [['G', 'D'], 'G and D'],
  ])('of %j is said as %s', (items, words) => {
    expect(listInWords(items)).toBe(words);
  });
});
