import { describe, expect, it } from 'vitest';
import type { JudgedRound } from '@wild-needle/core/live';
import type { JudgedStrum } from '@wild-needle/core/practice';
import { heardRoundOf, offsetWords, proposalOf, slipsOf, type RoundStrum } from './heard-words';

const STRUM: RoundStrum = { place: 'Bar 2, 3 &', name: 'D#5', palmMuted: false, dead: false };
const right: JudgedStrum = { played: true, offsetS: 0.01, right: 0.9, mute: 'right', heard: [39, 46] };
const round = (strums: readonly JudgedStrum[], over: Partial<JudgedRound> = {}): JudgedRound => ({
  ...{ strums, extraS: [], delayS: 0.04, levelDb: -20 },
  summary: { played: strums.length, right: strums.length, meanOffsetS: 0.0142, spreadS: 0.009 },
  ...over,
});

describe('what was heard of a round', () => {
  it.each([
    ['missed', STRUM, { ...right, played: false, right: 0 }, 'D#5 was missed.'],
    ['other notes', STRUM, { ...right, right: 0.1, heard: [40, 47] }, 'D#5 is written, it sounded like E5.'],
    ['a string too few', STRUM, { ...right, right: 0.1 }, 'D#5 is written, other strings sounded.'],
    [
      'no mute',
      { ...STRUM, palmMuted: true },
      { ...right, mute: 'wrong' as const },
      'the palm mute was missing.',
    ],
    ['a mute', STRUM, { ...right, mute: 'wrong' as const }, 'it was muted and should ring.'],
    ['no dead stroke', { ...STRUM, dead: true }, { ...right, played: false }, 'the dead stroke was missed.'],
  ])('names a slip: %s', (_, strum, judged, words) => {
    expect(slipsOf([strum], [judged], null)).toEqual([{ index: 0, place: 'Bar 2, 3 &', words }]);
  });

  it('proposes clean where nothing is wrong, a slip where something is, and nothing where it is too quiet', () => {
    expect(proposalOf(round([right]), [])).toBe('clean');
    expect(proposalOf(round([right], { extraS: [1] }), [])).toBe('slip');
    expect(proposalOf(round([right]), slipsOf([STRUM], [{ ...right, played: false }], null))).toBe('slip');
    expect(proposalOf(round([right], { levelDb: -80 }), [])).toBeNull();
    expect(proposalOf(round([]), [])).toBeNull();
  });

  it('goes into the log in milliseconds', () => {
    expect(heardRoundOf(round([right, right]))).toEqual({
      ...{ written: 2, played: 2, right: 2, meanMs: 14.2, spreadMs: 9 },
    });
    expect([14.2, -3, 0.2].map(offsetWords)).toEqual(['14 ms late', '3 ms early', 'on the beat']);
  });
});
