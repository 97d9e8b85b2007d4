import { describe, expect, it } from 'vitest';
import type { MeterAlternative } from '../mir';
import { analyse } from './analyse';
import { doubtsOf } from './doubts';

const SURE = analyse({ channels: [new Float32Array(22_050)], sampleRate: 22_050 });
const STRUM = {
  timeS: 1,
  endS: 2,
  midi: [40, 47],
  rootPc: 4,
  quality: '5',
  palmMuted: false,
  dead: false,
  confidence: 0.9,
  alternatives: [],
  name: 'E5',
  voicings: [],
} as const;
const HEARD = { ...SURE, strums: [STRUM], tempoBpm: 120 };
const reading = (tempoBpm: number, probability: number, beats = 4): MeterAlternative => ({
  tempoBpm,
  probability,
  meter: { beats, unit: 4 },
});

describe('doubts', () => {
  it('say that there is nothing, and nothing else then', () => {
    expect(SURE.doubts).toEqual([{ kind: 'no-strums' }]);
  });

  it('do not ask for the tempo of what is mostly in free time', () => {
    const meters = [reading(120, 0.3), reading(90, 0.25)];
    const free = { startS: 1, endS: 18 };
    const heard = { ...HEARD, durationS: 20, strums: Array.from({ length: 20 }, () => STRUM), meters };
    expect(doubtsOf({ ...heard, freeTime: [free] })).toEqual([{ kind: 'free-time', ...free }]);
    const partly = { startS: 1, endS: 8 };
    expect(doubtsOf({ ...heard, freeTime: [partly] })).toEqual([
      { kind: 'tempo', other: meters[1] },
      { kind: 'free-time', ...partly },
    ]);
  });

  it('are not raised by what was heard well', () => {
    expect(doubtsOf({ ...HEARD, meters: [reading(120, 0.8), reading(60, 0.1)] })).toEqual([]);
  });

  it('say that a click track has no notes, and that a choir is hardly strummed', () => {
    const click = { ...HEARD, strums: Array.from({ length: 60 }, () => ({ ...STRUM, dead: true })) };
    expect(doubtsOf({ ...click, durationS: 30 })).toEqual([{ kind: 'no-notes' }]);
    const choir = { ...HEARD, durationS: 60, strums: Array.from({ length: 6 }, () => STRUM) };
    expect(doubtsOf(choir)).toEqual([{ kind: 'few-strums', count: 6 }]);
    expect(doubtsOf({ ...choir, durationS: 14 })).toEqual([]);
  });

  it('say that hardly anything but single notes was heard, where there was time for a chord', () => {
    const notes = Array.from({ length: 20 }, () => ({ ...STRUM, midi: [57] }));
    expect(doubtsOf({ ...HEARD, durationS: 30, strums: notes })).toEqual([{ kind: 'no-chords' }]);
    expect(doubtsOf({ ...HEARD, durationS: 10, strums: notes })).toEqual([]);
    const withAFew = [...notes, STRUM, STRUM];
    expect(doubtsOf({ ...HEARD, durationS: 30, strums: withAFew })).toEqual([{ kind: 'no-chords' }]);
    const withChords = [...notes, ...notes.map(() => STRUM)];
    expect(doubtsOf({ ...HEARD, durationS: 30, strums: withChords })).toEqual([]);
  });

  it('tell faint strums, a missing pulse and a pitch between notes', () => {
    const faint = { ...HEARD, strums: [{ ...STRUM, confidence: 0.3 }], tempoBpm: null };
    expect(
      doubtsOf({ ...faint, referenceIsUnsettled: true, referenceOffsetCents: 48 }).map((d) => d.kind),
    ).toEqual(['faint', 'between-notes', 'no-pulse']);
  });

  it('name another tempo or meter that is about as likely, not the same reading with another place of the one', () => {
    const half = reading(60, 0.4);
    expect(doubtsOf({ ...HEARD, meters: [reading(120, 0.5), reading(121, 0.45), half] })).toEqual([
      { kind: 'tempo', other: half },
    ]);
    const waltz = reading(120, 0.3, 3);
    expect(doubtsOf({ ...HEARD, meters: [reading(120, 0.5), waltz] })).toEqual([
      { kind: 'tempo', other: waltz },
    ]);
  });

  it('name passages in free time', () => {
    expect(doubtsOf({ ...HEARD, freeTime: [{ startS: 3, endS: 9 }] })).toEqual([
      { kind: 'free-time', startS: 3, endS: 9 },
    ]);
  });
});
