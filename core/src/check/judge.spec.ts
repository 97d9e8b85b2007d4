import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { StrumEvidence } from './evidence';
import { judge, type Judgement } from './judge';

/** A strum that the recording bears out. */
const CLEAR: StrumEvidence = {
  notes: 0.99,
  struck: 0.99,
  kind: 0.98,
  heard: { midi: [40, 47, 52], palmMuted: false, dead: false },
  offsetS: 0.004,
  elsewhere: null,
};
const judged = (evidence: Partial<StrumEvidence>): Judgement =>
  judge({ strums: [{ ...CLEAR, ...evidence }], extra: [] })[0];
const largest = ({ kinds }: Judgement): string =>
  Object.entries(kinds).reduce((a, b) => (b[1] > a[1] ? b : a))[0];

describe('the judge', () => {
  it('agrees with what is heard as it is written', () => {
    expect(judged({})).toMatchObject({ verdict: 'agrees', heard: CLEAR.heard, offsetS: 0.004 });
    expect(judged({}).doubt).toBeLessThan(0.1);
  });

  it.each<[string, Partial<StrumEvidence>, string, string]>([
    ['other notes', { notes: 0.0005 }, 'clashes', 'notes'],
    ['another stroke', { kind: 0.0005 }, 'clashes', 'mute'],
    ['nothing', { struck: 0.001, heard: null, offsetS: null }, 'missing', 'there'],
    [
      'the same a little later',
      { struck: 0.001, offsetS: 0.2, elsewhere: { timeS: 1.2, probability: 0.9 } },
      'missing',
      'time',
    ],
  ])('says what is wrong where %s is heard', (_, evidence, verdict, kind) => {
    const judgement = judged(evidence);
    expect(judgement.verdict).toBe(verdict);
    expect(largest(judgement)).toBe(kind);
    expect(judgement.doubt).toBeGreaterThan(0.5);
  });

  it('asks a dead stroke for no notes', () => {
    expect(judged({ notes: null }).kinds.notes).toBe(0);
  });

  it('doubts more the less the recording bears out, and by probabilities', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, share, share, share, (notes, struck, kind, other) => {
        const { doubt, kinds } = judged({ notes, struck, kind });
        const ways = [kinds.notes, kinds.mute, kinds.time, kinds.there];
        for (const p of [doubt, ...ways]) {
          expect(p).toBeGreaterThanOrEqual(0);
          expect(p).toBeLessThanOrEqual(1);
        }
        expect(doubt).toBeGreaterThanOrEqual(Math.max(...ways) - 1e-9);
        const [less, more] = [Math.min(notes, other), Math.max(notes, other)];
        expect(judged({ notes: less, struck, kind }).doubt).toBeGreaterThanOrEqual(
          judged({ notes: more, struck, kind }).doubt - 1e-9,
        );
      }),
    );
  });
});
