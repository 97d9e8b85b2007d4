import { describe, expect, it } from 'vitest';
import type { StrumEvidence, StruckAt, WrittenStrum } from '../../check';
import { judgeTake, placeTake, type Take } from './judge-take';

const RATE = 22_050;
const strum = (timeS: number, midi: readonly number[] = [40, 47]): WrittenStrum => ({
  ...{ timeS, endS: timeS + 0.5, midi, palmMuted: false, dead: false },
});
const WRITTEN = Array.from({ length: 12 }, (_, i) => strum(1 + i / 2));

/** A tone of this level from each of the instants on. */
function sound(levels: readonly (readonly [timeS: number, level: number])[]): Float32Array {
  const samples = new Float32Array(9 * RATE);
  for (const [timeS, level] of levels) {
    for (let n = 0; n < 0.3 * RATE; n++) {
      samples[Math.round(timeS * RATE) + n] += level * Math.sin((2 * Math.PI * 110 * n) / RATE);
    }
  }
  return samples;
}
const evidence = (notes: number | null, kind = 0.9): StrumEvidence => ({
  ...{ notes, struck: 1, kind, offsetS: 0, cover: null, elsewhere: null },
  heard: { timeS: 1, endS: 2, midi: [40, 47], palmMuted: false, dead: false },
});
const take = (samples: Float32Array): Take => ({ samples, sampleRate: RATE, beatsS: [], delayS: 0.05 });

describe('a judged take', () => {
  // Struck 54 ms after its place each: the hearing gives it 4 ms before the pick.
  const struck = (timeS: number, probability = 0.9): StruckAt => ({
    timeS: timeS + 0.05 - 0.004,
    probability,
  });
  const played = WRITTEN.filter((_, i) => i !== 4);
  const strokes = [...played.map((w) => struck(w.timeS + 0.004)), struck(2.25)].sort(
    (a, b) => a.timeS - b.timeS,
  );
  const samples = sound(strokes.map((s) => [s.timeS, 0.3] as const));

  it('says what was played and how late, what was missed, and what was too much', () => {
    const placed = placeTake(WRITTEN, take(samples), strokes);
    const judged = judgeTake(WRITTEN, placed, { strums: placed.played.map(() => evidence(0.9)), extra: [] });
    expect(judged.strums.map((s) => s.played)).toEqual(WRITTEN.map((_, i) => i !== 4));
    expect(judged.strums[0].offsetS).toBeCloseTo(0.004, 6);
    expect(judged.extraS).toHaveLength(1);
    expect(judged.extraS[0]).toBeCloseTo(2.25, 6);
    expect(judged.summary).toMatchObject({ played: 11, right: 11 });
    expect(judged.summary.meanOffsetS).toBeCloseTo(0.004, 6);
    expect(judged.summary.spreadS).toBeCloseTo(0, 6);
  });

  it('tells wrong notes and a wrong hand, and where the hand can not be told', () => {
    const placed = placeTake(WRITTEN, take(samples), strokes);
    const strums = placed.played.map((_, i) =>
      i === 0 ? evidence(0.02) : i === 1 ? evidence(0.9, 0.1) : evidence(0.9, 0.4),
    );
    const judged = judgeTake(WRITTEN, placed, { strums, extra: [] });
    expect(judged.strums.slice(0, 3).map((s) => [s.right, s.mute])).toEqual([
      [expect.closeTo(0.155, 2), 'right'],
      [expect.closeTo(0.988, 2), 'wrong'],
      [expect.closeTo(0.988, 2), 'unclear'],
    ]);
    expect(judged.summary.right).toBe(10);
  });

  it('does not take the loudspeaker for the player who has stopped', () => {
    const stopped = strokes.map((s, i) => [s.timeS, i < 6 ? 0.3 : 0.004] as const);
    const placed = placeTake(WRITTEN, take(sound(stopped)), strokes);
    expect(placed.indices.length).toBeLessThan(7);
  });

  it('of a take without a stroke says that nothing was played', () => {
    const placed = placeTake(WRITTEN, { ...take(new Float32Array(RATE)), delayS: null }, []);
    const judged = judgeTake(WRITTEN, placed, { strums: [], extra: [] });
    expect(judged.summary).toEqual({ played: 0, right: 0, meanOffsetS: 0, spreadS: 0 });
  });
});
