import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, PLAIN_STRUM, type Riff } from '../riff';
import { paginate, paperOf, PAPERS, systemsOf, type PaperName } from './pages';

const riff = (bars: number, stepTicks: number): Riff => ({
  ...{ ...PLAIN_RIFF, id: 'a', letter: 'A', name: 'A' },
  bars: Array.from({ length: bars }, () => ({ beats: 4, unit: 4 as const })),
  strums: Array.from({ length: (bars * 3840) / stepTicks }, (_, i) => ({
    ...PLAIN_STRUM,
    id: `s${i}`,
    startTicks: i * stepTicks,
    durationTicks: stepTicks,
    trust: 'heard' as const,
  })),
});

describe('rows of a riff', () => {
  it('hold whole bars, as many as keep strums apart, and about as many each', () => {
    expect(systemsOf(riff(4, 480), 1000).map((s) => s.bars)).toEqual([4]);
    expect(systemsOf(riff(4, 240), 700).map((s) => s.bars)).toEqual([2, 2]);
    expect(systemsOf(riff(6, 240), 1100).map((s) => [s.fromBar, s.bars, s.isFirst, s.isLast])).toEqual([
      [0, 3, true, false],
      [3, 3, false, true],
    ]);
    expect(systemsOf(riff(2, 120), 300).map((s) => s.bars)).toEqual([1, 1]);
  });

  it('lose no bar, whatever the riff', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 20 }),
        fc.constantFrom(120, 240, 480, 960),
        fc.integer({ min: 100, max: 1200 }),
        (bars, step, width) => {
          const systems = systemsOf(riff(bars, step), width);
          expect(systems.reduce((sum, s) => sum + s.bars, 0)).toBe(bars);
          systems.slice(1).forEach((s, i) => expect(s.fromTicks).toBe(systems[i].toTicks));
        },
      ),
    );
  });
});

describe('pages', () => {
  const blocks = (...heights: number[]) => heights.map((heightPx) => ({ heightPx, isContinued: false }));

  it('keep a riff on one page where it fits on one', () => {
    const riffs = [...blocks(60), { heightPx: 30, isContinued: false }, { heightPx: 30, isContinued: true }];
    expect(paginate(riffs, 100, 100)).toEqual([[0], [1, 2]]);
  });

  it('cut a riff between its rows where it is longer than a page', () => {
    const long = [1, 2, 3, 4, 5].map((i) => ({ heightPx: 40, isContinued: i > 1 }));
    expect(paginate(long, 50, 100)).toEqual([[0], [1, 2], [3, 4]]);
  });

  it('hold every block once, in order, and never more than there is room for', () => {
    const block = fc.record({ heightPx: fc.integer({ min: 1, max: 150 }), isContinued: fc.boolean() });
    fc.assert(
      fc.property(fc.array(block, { maxLength: 30 }), (all) => {
        const pages = paginate(all, 80, 120);
        expect(pages.flat()).toEqual(all.map((_, i) => i));
        pages.forEach((page, p) => {
          const height = page.reduce((sum, i) => sum + all[i].heightPx, 0);
          if (page.length > 1) expect(height).toBeLessThanOrEqual(p === 0 ? 80 : 120);
        });
      }),
    );
  });

  // ISO 216: 297 by 210 mm; ANSI A: 11 by 8.5 inches; a CSS pixel is 1/96 inch.
  it.each<[PaperName, number, number]>([
    ['a4', 297, 210],
    ['letter', 279.4, 215.9],
  ])('of %s are as large as the paper', (name, widthMm, heightMm) => {
    expect(PAPERS[name].widthPx).toBeCloseTo((widthMm / 25.4) * 96, -0.4);
    expect(PAPERS[name].heightPx).toBeCloseTo((heightMm / 25.4) * 96, -0.4);
    expect(paperOf(name, true).widthPx).toBe(PAPERS[name].heightPx);
  });
});
