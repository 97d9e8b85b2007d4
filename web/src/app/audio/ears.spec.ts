import { describe, expect, it } from 'vitest';
import { EARS, FOCUSES, forEars, isolationOf, isWhole, WHOLE } from './ears';

describe('ears and focus', () => {
  it('need no processing for the whole sound and for single channels', () => {
    expect(isWhole(WHOLE)).toBe(true);
    expect(isolationOf(WHOLE)).toBeNull();
    expect(isolationOf({ ears: 'left', focus: 'full' })).toBeNull();
  });

  it('keep the middle, or all but the middle', () => {
    expect(isolationOf({ ears: 'centre', focus: 'full' })?.pan).toMatchObject({
      position: 0,
      isInside: true,
    });
    expect(isolationOf({ ears: 'sides', focus: 'full' })?.pan).toMatchObject({
      position: 0,
      isInside: false,
    });
  });

  it('can be combined', () => {
    for (const ears of EARS) {
      for (const focus of FOCUSES.slice(1)) expect(isolationOf({ ears, focus })).not.toBeNull();
    }
    expect(isolationOf({ ears: 'sides', focus: 'drums' })).toMatchObject({ isWithoutHits: true, band: null });
  });

  it('give one side to both ears', () => {
    expect(forEars('left', [1, 2])).toEqual([1, 1]);
    expect(forEars('right', [1, 2])).toEqual([2, 2]);
    expect(forEars('sides', [1, 2])).toEqual([1, 2]);
  });
});
