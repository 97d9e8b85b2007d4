import { describe, expect, it } from 'vitest';
import { createFretEntry } from './fret-entry';

describe('fret entry', () => {
  it('joins two quick digits at one place', () => {
    const entry = createFretEntry();
    expect(entry.type(1, 'a', 0)).toBe(1);
    expect(entry.type(2, 'a', 300)).toBe(12);
    expect(entry.type(3, 'a', 400)).toBe(3);
  });

  it.each([
    ['too late', 'a', 900, 5, 5],
    ['at another place', 'b', 100, 5, 5],
    ['beyond the neck', 'a', 100, 9, 9],
  ])('starts anew %s', (_, place, at, digit, fret) => {
    const entry = createFretEntry();
    entry.type(digit === 9 ? 2 : 1, 'a', 0);
    expect(entry.type(digit, place, at)).toBe(fret);
  });
});
