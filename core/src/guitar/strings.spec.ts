import { describe, expect, it } from 'vitest';
import { describeStrings } from './strings';
import { judgeTension } from './string-tension';
import { parseTuning, STANDARD_TUNING } from './tuning';

describe('the strings of a tuning', () => {
  it('are counted from the highest and listed from the lowest, in steps from standard', () => {
    const strings = describeStrings(parseTuning('C#2,G#2,C#3,F#3,A#3,D#4'), { offsetCents: 0 });
    expect(strings.map((s) => [s.string, s.steps])).toEqual([
      [6, -3],
      [5, -1],
      [4, -1],
      [3, -1],
      [2, -1],
      [1, -1],
    ]);
    expect(strings[0].freqHz).toBeCloseTo(69.3, 1);
  });

  it('follow the pitch of the recording', () => {
    const [low] = describeStrings(STANDARD_TUNING, { offsetCents: 38 });
    expect(1200 * Math.log2(low.freqHz / 82.4069)).toBeCloseTo(38, 1);
  });

  it('know a seventh string, and a dropped one that hangs loose', () => {
    const seven = describeStrings(parseTuning('B1,E2,A2,D3,G3,B3,E4'), { offsetCents: 0 });
    expect(seven.map((s) => s.steps)).toEqual([0, 0, 0, 0, 0, 0, 0]);
    const dropped = describeStrings(parseTuning('A1,A2,D3,G3,B3,E4'), { offsetCents: 0 });
    expect(dropped[0].verdict).toBe('slack');
    expect(dropped.slice(1).every((s) => s.verdict === 'good')).toBe(true);
    const raised = describeStrings(parseTuning('E2,A2,D3,G3,B3,A4'), { offsetCents: 0 });
    expect(raised[5].verdict).toBe('too-tight');
  });

  it('are judged at the limits', () => {
    expect([5.6, 5.7, 9.9, 10, 12].map(judgeTension)).toEqual([
      'slack',
      'good',
      'good',
      'tight',
      'too-tight',
    ]);
  });
});
