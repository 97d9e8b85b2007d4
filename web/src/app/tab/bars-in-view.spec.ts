import { describe, expect, it } from 'vitest';
import { barsThatFit, follow, pageOf, type Followed, type Turned } from './bars-in-view';
import { RIFF, strum } from './test-row';

/** `bars` bars of four beats, a strum every `apart` ticks. */
function riffOf(bars: number, apart: number) {
  const strums = Array.from({ length: (bars * 3840) / apart }, (_, i) => strum(i * apart, [[6, 0]]));
  return { ...RIFF, bars: Array.from({ length: bars }, () => RIFF.bars[0]), strums };
}

describe('bars in view', () => {
  it('are as many as keep 30 pixels between strums, and at least one', () => {
    expect(barsThatFit(riffOf(4, 240), 960)).toBe(2);
    expect(barsThatFit(riffOf(4, 240), 959)).toBe(1);
    expect(barsThatFit(riffOf(8, 480), 960)).toBe(4);
    expect(barsThatFit(riffOf(4, 120), 400)).toBe(1);
    expect(barsThatFit(riffOf(2, 1920), 960)).toBe(2);
  });

  it('leave room for the counts of bars without strums', () => {
    expect(barsThatFit({ ...riffOf(16, 240), strums: [] }, 960)).toBe(8);
  });

  it('fill the last page too', () => {
    expect([0, 1, 2, 3, 4].map((bar) => pageOf(bar, 2, 5))).toEqual([0, 0, 2, 2, 3]);
  });

  const at = (changes: Partial<Followed>): Followed => ({
    riffId: 'a',
    bars: 8,
    count: 2,
    needleBar: 0,
    chosenBar: 0,
    ...changes,
  });
  const from = (value: Turned, source: Partial<Followed> = {}) => ({ source: at(source), value });

  it('turn with the needle and with what is chosen, and not before they are out of view', () => {
    const shown = { first: 0, isByHand: false };
    expect(follow(at({ needleBar: 1 }), from(shown)).first).toBe(0);
    expect(follow(at({ needleBar: 2 }), from(shown)).first).toBe(2);
    expect(follow(at({ chosenBar: 5 }), from(shown)).first).toBe(4);
    expect(follow(at({ riffId: 'b', chosenBar: 7 }), from(shown)).first).toBe(6);
  });

  it('stay where a hand turned them, until the needle comes by', () => {
    const turned = { first: 4, isByHand: true };
    const kept = follow(at({ needleBar: 1 }), from(turned));
    expect(kept).toEqual(turned);
    const met = follow(at({ needleBar: 4 }), from(turned, { needleBar: 3 }));
    expect(met).toEqual({ first: 4, isByHand: false });
    expect(follow(at({ needleBar: 6 }), from(met, { needleBar: 5 })).first).toBe(6);
  });

  it('go to what is chosen when there is room for more or fewer', () => {
    expect(follow(at({ count: 4, chosenBar: 5 }), from({ first: 4, isByHand: true })).first).toBe(4);
  });
});
