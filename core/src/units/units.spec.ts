import { describe, expect, it } from 'vitest';
import { clamp, createRandom, dbToRatio, gaussian, ratioToDb, requireRange } from './index';

describe('units', () => {
  it('says name, range and value of what is out of range', () => {
    expect(() => requireRange('fret', 30, 0, 24)).toThrow('fret must be from 0 to 24, but was 30');
    expect(() => requireRange('fret', NaN, 0, 24)).toThrow(RangeError);
    expect(requireRange('fret', 24, 0, 24)).toBe(24);
  });

  it('turns decibels there and back', () => {
    for (const db of [-60, -6, 0, 12]) expect(ratioToDb(dbToRatio(db))).toBeCloseTo(db, 9);
  });

  it('keeps a value between its limits', () => {
    expect([clamp(-1, 0, 5), clamp(3, 0, 5), clamp(9, 0, 5)]).toEqual([0, 3, 5]);
  });
});

describe('seeded random', () => {
  it('gives the same numbers for the same seed and others for another', () => {
    const take = (seed: number): number[] => {
      const random = createRandom(seed);
      return Array.from({ length: 5 }, random);
    };
    expect(take(3)).toEqual(take(3));
    expect(take(3)).not.toEqual(take(4));
  });

  it('is spread evenly, and normally for gaussian', () => {
    const random = createRandom(1);
    const uniform = Array.from({ length: 20000 }, random);
    expect(uniform.reduce((s, v) => s + v) / 20000).toBeCloseTo(0.5, 1);
    const normal = Array.from({ length: 20000 }, () => gaussian(random));
    const mean = normal.reduce((s, v) => s + v) / 20000;
    const variance = normal.reduce((s, v) => s + (v - mean) ** 2, 0) / 20000;
    expect(mean).toBeCloseTo(0, 1);
    expect(variance).toBeCloseTo(1, 1);
  });
});
