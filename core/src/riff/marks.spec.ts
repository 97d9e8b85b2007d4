import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../guitar';
import { NO_MARKS, PLAIN_RIFF, PLAIN_STRUM, type Riff, type Strum } from './document';
import { applyMark, markState, type MarkCommand } from './marks';
import { isBlank, isStruck, strokeOf, strumNotes } from './strum';

const strum = (startTicks = 0, changes: Partial<Strum> = {}): Strum => ({
  ...PLAIN_STRUM,
  id: String(startTicks),
  startTicks,
  durationTicks: 480,
  frets: [{ string: 6, fret: 12 }],
  trust: 'heard',
  ...changes,
});

/** Presses of a key until the mark is where it was. */
function round(command: MarkCommand, start = strum()): string[] {
  const states = [markState(start, command)];
  for (let s = applyMark(start, command); markState(s, command) !== states[0]; s = applyMark(s, command)) {
    states.push(markState(s, command));
    if (states.length > 9) break;
  }
  return states;
}

describe('marks', () => {
  it.each<[MarkCommand, string[]]>([
    ['mute', ['false', 'true']],
    ['dead', ['false', 'true']],
    ['rest', ['false', 'true']],
    ['ring', ['false', 'true']],
    ['short', ['false', 'true']],
    ['slide', ['false', 'true']],
    ['hammer', ['false', 'true']],
    ['tie', ['false', 'true']],
    ['slide-end', ['null/null', 'below/null', 'above/null', 'null/down', 'null/up']],
    ['bend', ['0', '50', '100', '200', '300']],
    ['vibrato', ['false', 'true']],
    ['harmonic', ['null', 'natural', 'pinch']],
    ['bar', ['null', 'dip', 'dive']],
    ['accent', ['false', 'true']],
    ['stroke', ['null', 'down', 'up']],
  ])('%s goes round by one key', (command, states) => {
    expect(round(command)).toEqual(states);
  });

  it('has a natural harmonic only over a node of the string', () => {
    expect(round('harmonic', strum(0, { frets: [{ string: 6, fret: 6 }] }))).toEqual(['null', 'pinch']);
  });

  it('keeps the frets of a rest and of a dead stroke, and bends neither', () => {
    const rest = applyMark(strum(), 'rest');
    expect(strumNotes(rest, STANDARD_TUNING)).toEqual([]);
    expect(applyMark(rest, 'bend')).toBe(rest);
    expect(strumNotes(applyMark(rest, 'rest'), STANDARD_TUNING)).toEqual([52]);
    expect(applyMark(strum(0, { marks: { ...NO_MARKS, bendCents: 100 } }), 'dead').marks.bendCents).toBe(0);
  });

  it('counts as checked by ear', () => {
    expect(applyMark(strum(), 'vibrato').trust).toBe('checked');
  });
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
});
