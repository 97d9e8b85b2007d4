import { describe, expect, it } from 'vitest';
import { markWords, NO_MARKS, type Strum } from '@wild-needle/core/riff';
import { strum } from './test-row';
import { spokenStrum } from './strum-words';

describe('a strum in words', () => {
  it('says what is marked, the frets, and what is not written yet', () => {
    const words = (marks: Partial<Strum['marks']>, changes: Partial<Strum> = {}): string =>
      markWords(strum(0, [[6, 3]], { ...changes, marks: { ...NO_MARKS, ...marks } })).join(', ');
    expect(words({ bendCents: 100, vibrato: true })).toBe('bent by a semitone, vibrato');
    expect(words({ slideIn: 'below', whammyBar: 'dip', accent: true })).toBe(
      'slid into from below, bar dip, accent',
    );
    expect(words({}, { rest: true })).toBe('rest');
    expect(spokenStrum(strum(0, []), '', [], null)).toBe('not written yet');
    expect(spokenStrum(strum(0, [[6, 3]], { palmMute: true }), 'G', [], null)).toBe(
      'G palm mute: string 6 fret 3',
    );
    expect(spokenStrum(strum(0, [[5, 3]]), 'C', [40, 43], null)).toBe(
      'C: string 5 fret 3; E2 and G2 lost in this tuning',
    );
  });
});
