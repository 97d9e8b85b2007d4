import { describe, expect, it } from 'vitest';
import { fitIntercepts, softmaxWith } from './class-intercepts';

describe('intercepts of classes', () => {
  it('are nothing without examples', () => {
    expect(fitIntercepts([], 3)).toEqual([0, 0, 0]);
  });

  it('make a class likelier that examples show again and again', () => {
    const mistaken = { logits: [1, 0], truth: 1 };
    const few = fitIntercepts([mistaken], 2);
    const many = fitIntercepts(new Array(8).fill(mistaken) as (typeof mistaken)[], 2);
    expect(softmaxWith(mistaken.logits, few)[1]).toBeLessThan(0.5);
    expect(softmaxWith(mistaken.logits, many)[1]).toBeGreaterThan(0.5);
  });

  it('leave classes alone that are right as they are', () => {
    const right = [0, 1].map((truth) => ({ logits: truth === 0 ? [9, 0] : [0, 9], truth }));
    for (const intercept of fitIntercepts(right, 2)) expect(intercept).toBeCloseTo(0, 3);
  });
});
