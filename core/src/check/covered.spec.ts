import { describe, expect, it } from 'vitest';
import { FIRST_HEARD_NOTE } from '../mir';
import { coverOf } from './covered';

const levels = (loud: Partial<Record<number, number>>): Float32Array =>
  Float32Array.from({ length: 58 }, (_, i) => loud[i + FIRST_HEARD_NOTE] ?? 0);
const guitars = levels({ 47: 1, 52: 0.8 });

describe('a note that another instrument covers', () => {
  it('is the bass deep in the middle, and the voice above it', () => {
    expect(coverOf([40, 47, 52], [47, 52], { mid: levels({ 40: 1 }), side: guitars })).toEqual({
      by: 'bass',
      notes: [40],
    });
    expect(coverOf([47, 52], [47, 52, 56], { mid: levels({ 56: 0.9 }), side: guitars })).toEqual({
      by: 'voice',
      notes: [56],
    });
  });

  it.each([
    ['nothing differs', [47, 52], [47, 52], levels({ 40: 1 })],
    ['nobody sounds it', [40, 47, 52], [47, 52], levels({ 57: 1 })],
    ['the guitars sound it', [47], [47, 52], levels({ 52: 1 })],
    ['one of two notes can be told', [40, 47, 53], [47], levels({ 40: 1 })],
  ])('is told where %s', (_, written, heard, mid) => {
    expect(coverOf(written, heard, { mid, side: guitars })).toBeNull();
  });

  it('is not claimed of a mono recording', () => {
    expect(coverOf([40, 47], [47], { mid: levels({ 40: 1 }), side: null })).toBeNull();
  });
});
