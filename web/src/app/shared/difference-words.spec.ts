import { describe, expect, it } from 'vitest';
import { PLAIN_RIFF, type Riff } from '@wild-needle/core/riff';
import {
  differenceList,
  differenceWords,
  placeWords,
  variationLabel,
  variationName,
} from './difference-words';

const RIFF: Riff = {
  ...PLAIN_RIFF,
  id: 'r',
  letter: 'A',
  name: 'R',
  bars: [{ beats: 4, unit: 4 }],
  strums: [],
};

describe('how a pass differs, in words', () => {
  const two: Riff = { ...RIFF, bars: [...RIFF.bars, ...RIFF.bars] };
  const heard = [
    { ticks: 960, endTicks: 1440, midi: [45, 52], palmMuted: false, dead: false, confidence: 1 },
  ];
  const difference = (kind: 'chord' | 'missing' | 'early-end' | 'mute' | 'extra', ticks: number) => ({
    kind,
    ticks,
    strumId: 'x',
    heard: kind === 'missing' || kind === 'early-end' ? null : 0,
    probability: 1,
  });

  it('says the gravest first, and counts the rest', () => {
    const all = [
      difference('mute', 0),
      difference('chord', 960),
      difference('early-end', 5280),
      difference('missing', 0),
    ];
    expect(differenceWords(two, all, heard, null)).toBe(
      'Bar 2, 2 &: ends early; bar 1, beat 2: A5 and 2 more',
    );
    expect(differenceWords(RIFF, [difference('extra', 960)], heard, null)).toBe('Beat 2: one more A5');
    expect(differenceWords(RIFF, [], heard, null)).toBe('');
    expect(differenceList(two, all, heard, null)).toEqual([
      'Bar 2, 2 &: ends early',
      'Bar 1, beat 2: A5',
      'Bar 1, beat 1: no stroke heard',
      'Bar 1, beat 1: ringing',
    ]);
  });

  it('names a variation by where it is', () => {
    expect(variationName(two, [difference('chord', 4000)])).toBe('Ending 2');
    expect(variationName(two, [difference('chord', 0)])).toBe('Variation 1');
    const ending = { id: 'v', name: 'Ending 2', fromTicks: 3840, toTicks: 7680, strums: [], guitar2: [] };
    expect(variationName({ ...two, variations: [ending] }, [difference('early-end', 0)])).toBe('Ending 3');
    expect(variationLabel(two, ending)).toBe('Ending 2, bar 2');
    expect(placeWords(RIFF, 720)).toBe('1 a');
  });

  it('counts what comes a little early for a bar in that bar', () => {
    expect(placeWords(two, 3700)).toBe('bar 1, 4 a');
    expect(placeWords(two, 3800)).toBe('bar 2, beat 1');
    expect(placeWords(two, 7650)).toBe('the first beat after it');
  });
});
