import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { StrumEvidence, WrittenStrum } from './evidence';
import { judge, type Judgement } from './judge';

/** A strum that the recording bears out. */
const CLEAR: StrumEvidence = {
  notes: 0.99,
  struck: 0.99,
  kind: 0.98,
  heard: { timeS: 1.004, endS: 1.4, midi: [40, 47, 52], palmMuted: false, dead: false },
  offsetS: 0.004,
  elsewhere: null,
  cover: null,
};
const WRITTEN: WrittenStrum = { timeS: 1, endS: 1.4, midi: [40, 47, 52], palmMuted: false, dead: false };
const judged = (evidence: Partial<StrumEvidence>): Judgement =>
  judge({ strums: [{ ...CLEAR, ...evidence }], extra: [] }, [WRITTEN])[0];
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

  it('says why: which notes are too many and which are lacking, how it is struck, when', () => {
    const heard = { ...CLEAR.heard!, midi: [40, 46, 52] };
    expect(judged({ notes: 0.001, heard }).reason).toEqual({ kind: 'notes', extra: [46], missing: [47] });
    const muted = { ...CLEAR.heard!, palmMuted: true };
    expect(judged({ kind: 0.001, heard: muted }).reason).toEqual({ kind: 'mute', heard: 'muted' });
    expect(judged({ struck: 0.001, heard: null }).reason).toEqual({ kind: 'not-heard' });
  });

  it('does not say that something is wrong which another instrument covers', () => {
    const heard = { ...CLEAR.heard!, midi: [47, 52] };
    const cover = { by: 'bass', notes: [40] } as const;
    const judgement = judged({ notes: 0.0005, heard, cover });
    expect(judgement).toMatchObject({
      verdict: 'doubtful',
      reason: { kind: 'covered', by: 'bass', notes: [40] },
    });
  });

  describe('of a whole song', () => {
    const song = (offsetsMs: readonly number[], late: Partial<StrumEvidence> = {}): Judgement[] => {
      const strums = offsetsMs.map((ms) => ({ ...CLEAR, offsetS: ms / 1000 }));
      return judge(
        { strums: [...strums, { ...CLEAR, ...late }], extra: [] },
        [...strums, late].map(() => WRITTEN),
      );
    };
    const HABIT = [4, 8, 10, 12, 13, 15, 18, 22, 11, 9, 16, 20];

    it('takes what the band always does for its habit, and what lies far outside for the wrong time', () => {
      expect(song(HABIT, { offsetS: 0.014 }).at(-1)!.kinds.time).toBeLessThan(0.05);
      expect(song(HABIT, { offsetS: 0.045 }).at(-1)).toMatchObject({
        reason: { kind: 'time', offsetS: 0.045 },
      });
      // The same 45 ms are nothing to a band that drags.
      const dragging = song(
        HABIT.map((ms) => ms + 31),
        { offsetS: 0.045 },
      );
      expect(dragging.at(-1)!.kinds.time).toBeLessThan(0.05);
    });

    it('knows no habit from a few strums', () => {
      expect(song([4, 8], { offsetS: 0.045 }).at(-1)!.kinds.time).toBe(0);
    });

    it('asks less about what the ear has overruled, and not about another reading', () => {
      const misheard = { ...CLEAR, notes: 0.02, heard: { ...CLEAR.heard!, midi: [40, 46, 52] } };
      const other = { ...CLEAR, notes: 0.02, heard: { ...CLEAR.heard!, midi: [41, 48] } };
      const strums = [misheard, misheard, other];
      const ask = (kept: boolean[]): number[] =>
        judge(
          { strums, extra: [] },
          strums.map(() => WRITTEN),
          kept,
        ).map((j) => j.doubt);
      const [before, after] = [ask([false, false, false]), ask([true, false, false])];
      expect(after[1]).toBeLessThan(before[1] / 1.5);
      expect(after[2]).toBe(before[2]);
    });
  });
});
