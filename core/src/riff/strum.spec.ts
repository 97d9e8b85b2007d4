import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../guitar';
import { PLAIN_RIFF, PLAIN_SONG, PLAIN_STRUM, type Riff, type Strum } from './document';
import { NO_MARKS } from './marks/fields';
import { applyMark } from './marks/marks';
import { checkedCount, isBlank, isStruck, strokeOf, strumNotes } from './strum';

const strum = (startTicks = 0, changes: Partial<Strum> = {}): Strum => ({
  ...PLAIN_STRUM,
  id: String(startTicks),
  startTicks,
  durationTicks: 480,
  frets: [{ string: 6, fret: 12 }],
  trust: 'heard',
  ...changes,
});

describe('a strum', () => {
  it.each([
    // Partials 4, 3, 5 and 2 of the low E (40): E4, B3, G#4 and E3.
    [5, 64],
    [7, 59],
    [9, 68],
    [12, 52],
  ])('sounds its harmonic at fret %i', (fret, midi) => {
    const harmonic = strum(0, { frets: [{ string: 6, fret }], marks: { ...NO_MARKS, harmonic: 'natural' } });
    expect(strumNotes(harmonic, STANDARD_TUNING)).toEqual([midi]);
  });

  const riff: Riff = {
    ...PLAIN_RIFF,
    id: 'r',
    letter: 'A',
    name: 'A',
    bars: [{ beats: 4, unit: 4 }],
    strums: [],
  };

  it.each([
    [0, 'down'],
    [480, 'down'],
    [240, 'up'],
    [720, 'up'],
    [1280, 'up'],
    [1600, 'down'],
  ])('at tick %i is struck %s', (ticks, direction) => {
    expect(strokeOf(riff, strum(ticks))).toBe(direction);
  });

  it('that is slid into, tied or rested is not struck', () => {
    expect(isStruck(applyMark(strum(), 'slide'))).toBe(false);
    expect(strokeOf(riff, applyMark(strum(), 'tie'))).toBeNull();
    expect(strokeOf(riff, applyMark(strum(), 'rest'))).toBeNull();
    expect(strokeOf(riff, applyMark(applyMark(strum(), 'stroke'), 'stroke'))).toBe('up');
  });

  it('without frets is blank unless it is dead or a rest', () => {
    const empty = strum(0, { frets: [] });
    expect([empty, applyMark(empty, 'dead'), applyMark(empty, 'rest')].map(isBlank)).toEqual([
      true,
      false,
      false,
    ]);
  });

  it('of either guitar counts as written, and as checked once it was', () => {
    const written: Riff = {
      ...riff,
      strums: [strum(0), strum(480, { trust: 'checked' })],
      guitar2: [strum(0, { trust: 'checked' })],
    };
    expect(checkedCount({ ...PLAIN_SONG, riffs: [written, written] })).toEqual({ checked: 4, written: 6 });
    expect(checkedCount(PLAIN_SONG)).toEqual({ checked: 0, written: 0 });
  });
});
