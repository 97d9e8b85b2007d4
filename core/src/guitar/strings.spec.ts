import { describe, expect, it } from 'vitest';
import { describeStrings } from './strings';
import { judgeTension, STRING_SETS } from './string-tension';
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
    const limits = [4.1, 4.2, 5.3, 5.4, 9.9, 10, 12];
    expect(limits.map((kg) => judgeTension(kg, false))).toEqual([
      'slack',
      'good',
      'good',
      'good',
      'good',
      'tight',
      'too-tight',
    ]);
    expect(limits.slice(1, 4).map((kg) => judgeTension(kg, true))).toEqual(['slack', 'slack', 'good']);
  });

  it('are not called slack in light strings half a step down', () => {
    const light = STRING_SETS.find((s) => s.name === '9–42')?.gauges;
    const down = describeStrings(parseTuning('Eb2,Ab2,Db3,Gb3,Bb3,Eb4'), { offsetCents: 0, gauges: light });
    expect(down.map((s) => s.verdict)).toEqual(Array(6).fill('good'));
  });

  it('are called slack in drop C with strings for standard tuning', () => {
    const [low, ...others] = describeStrings(parseTuning('C2,G2,C3,F3,A3,D4'), { offsetCents: 0 });
    expect([low.verdict, others.every((s) => s.verdict === 'good')]).toEqual(['slack', true]);
  });
});
