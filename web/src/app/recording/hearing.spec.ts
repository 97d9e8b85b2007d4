import { describe, expect, it } from 'vitest';
import { boundedPlace, EARS, FOCUSES, forEars, isolationOf, isWhole, WHOLE } from './hearing';

describe('ears and focus', () => {
  it('need no processing for the whole sound and for single channels', () => {
    expect(isWhole(WHOLE)).toBe(true);
    expect(isolationOf(WHOLE)).toBeNull();
    expect(isolationOf({ ...WHOLE, ears: 'left' })).toBeNull();
  });

  it('keep the middle, or all but the middle', () => {
    expect(isolationOf({ ...WHOLE, ears: 'centre' })?.pan).toMatchObject({
      position: 0,
      isInside: true,
    });
    expect(isolationOf({ ...WHOLE, ears: 'sides' })?.pan).toMatchObject({
      position: 0,
      isInside: false,
    });
  });

  it('can be combined', () => {
    for (const ears of EARS) {
      for (const focus of FOCUSES.slice(1)) expect(isolationOf({ ...WHOLE, ears, focus })).not.toBeNull();
    }
    expect(isolationOf({ ...WHOLE, ears: 'sides', focus: 'drums' })).toMatchObject({
      isWithoutHits: true,
      band: null,
    });
  });

  it('keep a window of the stage, and the window on the stage', () => {
    const place = boundedPlace({ position: -1.7, width: 0.001 });
    expect(place).toEqual({ position: -1, width: 0.1 });
    expect(isolationOf({ ...WHOLE, ears: 'place', place })?.pan).toEqual({ ...place, isInside: true });
  });

  it('leave the written tab alone: with it the sound is never the whole recording', () => {
    expect(isWhole({ ...WHOLE, source: 'tab' })).toBe(false);
    expect(isolationOf({ ...WHOLE, source: 'each' })).toBeNull();
  });

  it('give one side to both ears', () => {
    expect(forEars('left', [1, 2])).toEqual([1, 1]);
    expect(forEars('right', [1, 2])).toEqual([2, 2]);
    expect(forEars('sides', [1, 2])).toEqual([1, 2]);
  });
});
