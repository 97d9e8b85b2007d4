import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createRandom, gaussian } from '../../units';
import { alignTake, type TakeStroke } from './align-take';

const EIGHTH = 0.25;
const WRITTEN = Array.from({ length: 64 }, (_, i) => 2 + i * EIGHTH);
const sure = (timesS: readonly number[]): TakeStroke[] =>
  timesS.map((timeS) => ({ timeS, probability: 0.95 }));

describe('a take laid on its tab', () => {
  it('finds every strum of a player who is late, drifts and wavers', () => {
    const random = createRandom(5);
    const played = WRITTEN.map((w, i) => w + 0.07 + 0.04 * Math.sin(i / 9) + 0.02 * gaussian(random));
    const { strokeOf, extra, offsetS } = alignTake(WRITTEN, sure(played), null);
    expect(strokeOf).toEqual(WRITTEN.map((_, i) => i));
    expect(extra).toEqual([]);
    expect(Math.abs(offsetS - 0.07)).toBeLessThan(0.02);
  });

  it('tells what was missed, what was too much, and where the player gave up', () => {
    const missed = [3, 17, 18, 30];
    const kept = WRITTEN.slice(0, 44).filter((_, i) => !missed.includes(i));
    const played = [...kept, WRITTEN[7] + EIGHTH / 2].map((t) => t + 0.05).sort((a, b) => a - b);
    const { strokeOf, extra } = alignTake(WRITTEN, sure(played), 0.05);
    const silent = strokeOf.flatMap((j, i) => (j === null ? [i] : []));
    expect(silent).toEqual([...missed, ...WRITTEN.map((_, i) => i).slice(44)]);
    expect(extra.map((j) => played[j])).toEqual([WRITTEN[7] + EIGHTH / 2 + 0.05]);
  });

  it('takes a faint stroke for the strum that is written there, and for nothing elsewhere', () => {
    const strokes = WRITTEN.map((timeS, i) => ({ timeS, probability: i % 5 === 0 ? 0.02 : 0.95 }));
    const faint = [0.6, 1.3].map((timeS) => ({ timeS, probability: 0.02 }));
    const { strokeOf } = alignTake(WRITTEN, [...faint, ...strokes], 0);
    expect(strokeOf).toEqual(WRITTEN.map((_, i) => i + faint.length));
  });

  it('never takes a stroke twice, nor out of order, whatever was struck', () => {
    const stroke = fc.record({
      timeS: fc.double({ min: 0, max: 20, noNaN: true }),
      probability: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(stroke, { maxLength: 60 }), fc.boolean(), (some, isKnown) => {
        const strokes = [...some].sort((a, b) => a.timeS - b.timeS);
        const { strokeOf, extra } = alignTake(WRITTEN, strokes, isKnown ? 0.03 : null);
        const taken = strokeOf.filter((j) => j !== null);
        expect(taken).toEqual([...new Set(taken)].sort((a, b) => a - b));
        expect(extra.some((j) => taken.includes(j))).toBe(false);
      }),
      { numRuns: 60 },
    );
  });

  it('has nothing to say of silence', () => {
    expect(alignTake(WRITTEN, [], null).strokeOf.every((j) => j === null)).toBe(true);
    expect(alignTake([], sure([1, 2]), null)).toMatchObject({ strokeOf: [], extra: [0, 1] });
  });
});
