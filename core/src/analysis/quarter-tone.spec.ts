import { describe, expect, it } from 'vitest';
import type { Heard, HeardStrum } from '../mir';
import { chooseQuarterToneSide } from './quarter-tone';

const heard = (timeS: number, root: number): HeardStrum => ({
  timeS,
  endS: timeS + 0.5,
  midi: [root, root + 7],
  rootPc: root % 12,
  quality: '5',
  palmMuted: false,
  dead: false,
  confidence: 0.9,
  alternatives: [],
});

describe('a recording a quarter tone off', () => {
  const strums = [0, 0.5, 1, 1.5].map((t, i) => heard(t, [41, 44, 41, 46][i]));
  const off = (cents: number): Heard => ({
    durationS: 3,
    reference: {
      cents,
      spreadCents: 2,
      isNearQuarterTone: Math.abs(cents) > 45,
      overTime: [],
      histogram: [],
      partials: 0,
    },
    grid: null,
    meters: [],
    strums,
    strokes: [],
    guitars: [],
    key: null,
    sections: [],
    sameAsBar: [],
  });

  it('is written where a usual tuning plays it on its open string', () => {
    const chosen = chooseQuarterToneSide(off(-49));
    expect(chosen.strums.map((s) => s.midi[0])).toEqual([40, 43, 40, 45]);
    expect(chosen.reference?.cents).toBe(51);
    expect(chosen.key?.key.tonic).toBe('E');
  });

  it('is left alone when it is not near one, or lies well already', () => {
    expect(chooseQuarterToneSide(off(-20))).toEqual(off(-20));
    const low = { ...off(49), strums: [0, 1].map((t) => heard(t, 40)) };
    expect(chooseQuarterToneSide(low)).toEqual(low);
  });
});
