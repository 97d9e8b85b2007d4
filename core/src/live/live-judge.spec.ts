import { describe, expect, it } from 'vitest';
import type { WrittenStrum } from '../check';
import { TOO_QUIET_DB } from '../practice';
import { createLiveJudge, type LiveAnswer, type LiveRound } from './live-judge';
import { mistakesOf, playSimulated, SIMULATED_DELAY_S } from './simulated-player';
import { TakeBuffer } from './take-buffer';

const RATE = 44_100;
const BEAT_S = 0.5;
/** Two bars of eighths: power chords on low strings, some muted, from this device time on. */
const strumsFrom = (startS: number): WrittenStrum[] =>
  [40, 40, 43, 40, 45, 45, 43, 41, 40, 40, 43, 40, 38, 38, 41, 43].map((root, i) => {
    const timeS = startS + (i * BEAT_S) / 2;
    const isMuted = i % 4 === 1;
    return {
      ...{ timeS, endS: timeS + BEAT_S / 2, palmMuted: isMuted, dead: false },
      midi: [root, root + 7],
    };
  });
const roundFrom = (startS: number): LiveRound => ({
  ...{ strums: strumsFrom(startS), startS, endS: startS + 16 * (BEAT_S / 2), beatS: BEAT_S },
});

/** Hands the round over in pieces of 50 ms as an input does, and asks after each. */
function play(
  judge: ReturnType<typeof createLiveJudge>,
  round: LiveRound,
  number: number,
): { answers: (LiveAnswer & { readonly askedS: number })[]; judged: ReturnType<typeof judge.end> } {
  const [fromS, toS] = [round.startS, round.endS + 0.2];
  const sound = playSimulated(round.strums, { number, fromS, toS, sampleRate: RATE, cents: 0 });
  judge.begin(round);
  const piece = Math.round(0.05 * RATE);
  const answers: (LiveAnswer & { readonly askedS: number })[] = [];
  for (let n = 0; n < sound.length; n += piece) {
    judge.hear(fromS + n / RATE, sound.slice(n, n + piece));
    const askedS = fromS + Math.min(sound.length, n + piece) / RATE;
    answers.push(...judge.answers().map((a) => ({ ...a, askedS })));
  }
  return { answers, judged: judge.end() };
}

describe('a player judged while playing', () => {
  const options = { sampleRate: RATE, delayS: SIMULATED_DELAY_S, referenceCents: 0 };

  it('is told each strum at the latest a beat after it was due, and the round at its seam', () => {
    const round = roundFrom(5);
    const { answers, judged } = play(createLiveJudge(options), round, 1);
    const { missed, wrong } = mistakesOf(16, 1);
    const inTime = answers.filter((a) => a.askedS <= round.strums[a.index].timeS + BEAT_S + 1e-6);
    expect(inTime.length).toBe(answers.length);
    expect(answers.map((a) => a.index)).toEqual(answers.map((_, i) => i));
    expect(answers.length).toBeGreaterThanOrEqual(15);
    expect(answers.filter((a) => !a.played).map((a) => a.index)).toEqual(missed);
    expect(judged?.strums.flatMap((s, i) => (s.played ? [] : [i]))).toEqual(missed);
    expect(judged?.strums.flatMap((s, i) => (s.played && s.right < 0.5 ? [i] : []))).toEqual(wrong);
    expect(judged?.extraS).toEqual([]);
    expect(judged?.summary.meanOffsetS).toBeCloseTo(0.014, 2);
  });

  it('leaves to other rounds what is played in them', () => {
    const judge = createLiveJudge(options);
    const [first, second] = [roundFrom(5), roundFrom(9)];
    play(judge, first, 3);
    const sound = playSimulated([...second.strums, ...roundFrom(13).strums], {
      number: 6,
      fromS: 9,
      toS: 14,
      sampleRate: RATE,
      cents: 0,
    });
    judge.begin(second);
    judge.hear(9, sound);
    const judged = judge.end();
    expect(judged?.extraS).toEqual([]);
    expect(judged?.summary.right).toBe(16);
  });

  it('finds the delay of the device in its first round where nobody has measured it', () => {
    const judge = createLiveJudge({ ...options, delayS: null });
    const first = play(judge, roundFrom(5), 3);
    expect(first.answers).toEqual([]);
    // Lateness and delay can't be told apart in one round: both are taken out.
    expect(Math.abs((judge.delayS ?? 0) - SIMULATED_DELAY_S - 0.014)).toBeLessThan(0.008);
    const second = play(judge, roundFrom(9), 6);
    expect(second.answers.length).toBeGreaterThanOrEqual(15);
    expect(Math.abs(second.judged?.summary.meanOffsetS ?? 1)).toBeLessThan(0.008);
  });

  it('says of a silent input that nothing was played, and how quiet it was', () => {
    const judge = createLiveJudge(options);
    judge.begin(roundFrom(5));
    judge.hear(5, new Float32Array(5 * RATE));
    const judged = judge.end();
    expect(judged?.strums.every((s) => !s.played)).toBe(true);
    expect(judged?.levelDb).toBeLessThan(TOO_QUIET_DB);
    expect(judge.end()).toBeNull();
  });
});

describe('what an input has heard', () => {
  it('is found by its time, and silent where nothing was heard', () => {
    const buffer = new TakeBuffer(10);
    expect(buffer.endS).toBeNull();
    buffer.add(1, Float32Array.of(1, 2, 3));
    buffer.add(1.4, Float32Array.of(5, 6));
    expect([...buffer.slice(0.9, 1.7)]).toEqual([0, 1, 2, 3, 0, 5, 6, 0]);
    expect(buffer.endS).toBeCloseTo(1.6, 9);
    buffer.add(200, Float32Array.of(9));
    expect([...buffer.slice(1, 1.3)]).toEqual([0, 0, 0]);
    buffer.clear();
    expect(buffer.endS).toBeNull();
  });
});
