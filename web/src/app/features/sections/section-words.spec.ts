import { describe, expect, it } from 'vitest';
import type { Difference } from '@wild-needle/core/draft';
import { PLAIN_RIFF, PLAIN_STRUM, type Riff } from '@wild-needle/core/riff';
import {
  comparePassesInWords,
  heightWords,
  keyWords,
  likenessWords,
  startDoubt,
  tempoWords,
} from './section-words';

const RIFF: Riff = {
  ...PLAIN_RIFF,
  id: 'r',
  letter: 'A',
  name: 'A',
  bars: [
    { beats: 4, unit: 4 },
    { beats: 4, unit: 4 },
  ],
  strums: [],
};
const stroke = { ticks: 960, endTicks: 1440, midi: [45, 52], palmMuted: true, dead: false, confidence: 1 };
const difference = (kind: Difference['kind'], ticks: number): Difference => ({
  kind,
  ticks,
  strumId: 'x',
  heard: kind === 'missing' || kind === 'early-end' ? null : 0,
  probability: 1,
});
const pass = (...differences: Difference[]) => ({
  riff: RIFF,
  strokes: [stroke],
  comparison: { verdicts: [], differences },
  differences,
  whole: null,
  isAsking: differences.length > 0,
  variation: null,
});
const variation = { id: 'v', name: 'Ending 2', fromTicks: 0, toTicks: 960, strums: [], guitar2: [] };

describe('passes in words', () => {
  it('agree, or were not heard', () => {
    expect(comparePassesInWords([pass(), pass()], null)).toEqual({
      kind: 'agree',
      words: 'All passes agree',
      details: '',
    });
    expect(comparePassesInWords([pass()], null).words).toBe('One pass');
    expect(comparePassesInWords([{ ...pass(), strokes: [] }], null).kind).toBe('unheard');
  });

  it('say on one line which differs in which bars, and how in the details', () => {
    const two = [pass(), pass(difference('missing', 960), difference('chord', 0)), pass()];
    expect(comparePassesInWords(two, null)).toEqual({
      kind: 'differ',
      words: 'Pass 2 differs in bar 1',
      details: 'Pass 2, bar 1, beat 1: A5; bar 1, beat 2: no stroke heard',
    });
    expect(comparePassesInWords([pass(), pass(difference('early-end', 5760))], null)).toMatchObject({
      words: 'The last pass ends early',
      details: 'The last pass, bar 2, beat 3: ends early',
    });
    const both = [difference('chord', 0), difference('chord', 4800)];
    expect(comparePassesInWords([pass(), pass(...both), pass(...both), pass()], null).words).toBe(
      'Passes 2 and 3 differ in bars 1 and 2',
    );
    // A stroke that comes early for the second bar is counted in it, here as in the details.
    expect(comparePassesInWords([pass(), pass(difference('chord', 3830)), pass()], null)).toMatchObject({
      words: 'Pass 2 differs in bar 2',
      details: 'Pass 2, bar 2, beat 1: A5',
    });
  });

  it('count the passes and the bars where there are many', () => {
    const many = [0, 960, 1920, 2880].map((t) => pass(difference('chord', t)));
    expect(comparePassesInWords([pass(), ...many], null)).toMatchObject({
      words: '4 passes differ in bar 1',
      details: expect.stringMatching(/^Pass 2, .*; pass 3, .* and 2 more$/) as string,
    });
    const riff = { ...RIFF, bars: Array.from({ length: 8 }, () => RIFF.bars[0]) };
    const everywhere = [0, 1, 3, 6].map((bar) => difference('chord', 3840 * bar));
    expect(comparePassesInWords([pass(), { ...pass(...everywhere), riff }], null).words).toBe(
      'The last pass differs in 4 bars',
    );
    const short = { ...RIFF, bars: [RIFF.bars[0]] };
    expect(comparePassesInWords([pass(), { ...pass(everywhere[0]), riff: short }], null).words).toBe(
      'The last pass differs',
    );
  });

  it('say that one is moved as a whole', () => {
    const moved = (semitones: number, ticks: number) => ({
      ...pass(difference('chord', 0)),
      whole: { semitones, ticks },
    });
    const words = (semitones: number, ticks: number): string =>
      comparePassesInWords([pass(), moved(semitones, ticks), pass()], null).words;
    expect(words(2, 0)).toBe('Pass 2 is 2 frets up');
    expect(words(-1, 0)).toBe('Pass 2 is 1 fret down');
    expect(words(0, -480)).toBe('Pass 2 is an eighth early');
    expect(words(0, 240)).toBe('Pass 2 is a sixteenth late');
    expect(comparePassesInWords([pass(), moved(2, 0)], null).details).toBe(
      'The last pass, the whole pass is played 2 frets up',
    );
  });

  it('say what most play otherwise than it is written', () => {
    const written = {
      ...RIFF,
      strums: [
        { ...PLAIN_STRUM, id: 'x', startTicks: 960, durationTicks: 480, frets: [], trust: 'heard' as const },
      ],
    };
    const told = (...differences: Difference[]) => ({
      ...pass(),
      riff: written,
      comparison: { verdicts: [], differences },
    });
    const chord = difference('chord', 960);
    expect(comparePassesInWords([told(chord), told(chord), told()], null)).toEqual({
      kind: 'differ',
      words: 'Not as written in bar 1',
      details: 'Most passes play otherwise than it is written: bar 1, beat 2: A5',
    });
    expect(comparePassesInWords([told(chord), told(), told()], null).words).toBe('All passes agree');
  });

  it('name the variation that a pass plays', () => {
    expect(comparePassesInWords([pass(), { ...pass(), variation }], null)).toEqual({
      kind: 'agree',
      words: 'The last pass plays “Ending 2”',
      details: '',
    });
  });
});

describe('facts of a section in words', () => {
  it('are its key and its tempo', () => {
    expect(keyWords({ tonic: 'C#', mode: 'minor' })).toBe('C# minor');
    expect(keyWords(null)).toBe('');
    const steady = { beatsS: Array.from({ length: 33 }, (_, i) => i / 2), bars: [] };
    expect(tempoWords(steady, 1, 9)).toBe('120');
    const rushing = { beatsS: Array.from({ length: 33 }, (_, i) => i / 2 - 0.003 * i * i), bars: [] };
    expect(tempoWords(rushing, 0, 12)).toMatch(/^12\d–1[3-9]\d$/);
    expect(tempoWords({ beatsS: [], bars: [] }, 0, 1)).toBe('');
  });
});

it('says how high a riff is played', () => {
  expect([0, 1, 2, -1, -3].map(heightWords)).toEqual([
    'as written',
    '+1 fret',
    '+2 frets',
    '−1 fret',
    '−3 frets',
  ]);
});

describe('a suggested section', () => {
  const suggested = (startProbability: number, orElseBars: number | null, likeRiff: number | null) => ({
    startProbability,
    orElseBars,
    likeRiff,
  });

  it('says how sure its start is, and where else it may be', () => {
    expect(startDoubt(suggested(0.95, null, null))).toBeNull();
    expect(startDoubt(suggested(0.4, 1, null))?.words).toBe(
      'We are not sure where it starts (40 %); it may be a bar later.',
    );
    expect(startDoubt(suggested(0.4, -2, null))?.words).toBe(
      'We are not sure where it starts (40 %); it may be 2 bars earlier.',
    );
    expect(startDoubt(suggested(0.4, null, null))).toEqual({
      words: 'We are not sure where it starts (40 %).',
      orElseBars: null,
    });
  });

  it('says how loosely it repeats its riff', () => {
    expect(likenessWords(suggested(1, null, 0.64), 'B')).toBe('64 % like the first B');
    expect(likenessWords(suggested(1, null, 0.9), 'B')).toBe('');
    expect(likenessWords(suggested(1, null, null), 'B')).toBe('');
  });
});
