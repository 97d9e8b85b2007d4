import { describe, expect, it } from 'vitest';
import { STANDARD_TUNING } from '../../guitar';
import { PLAIN_STRUM, type Strum } from '../document';
import { strumNotes } from '../strum';
import { MARK_FIELDS, NO_MARKS } from './fields';
import { applyMark, MARKS, markState, markWords, type MarkCommand } from './marks';

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
    ['tremolo', ['false', 'true']],
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

  it('are each said and signed where they are marked, and nowhere else', () => {
    for (const command of Object.keys(MARKS) as MarkCommand[]) {
      const row = MARKS[command];
      const marked = applyMark(strum(), command);
      expect(markWords(strum())).toEqual([]);
      expect(markWords(marked), command).toHaveLength(1);
      expect(
        row.legend.some(([has]) => has(strum())),
        command,
      ).toBe(false);
      // Ends of slides are explained with the slide.
      if (command !== 'slide-end')
        expect(
          row.legend.some(([has]) => has(marked)),
          command,
        ).toBe(true);
    }
  });

  it('explain every bend that can be played', () => {
    let bent = strum();
    for (const cents of [50, 100, 200, 300]) {
      bent = applyMark(bent, 'bend');
      expect(bent.marks.bendCents).toBe(cents);
      const told = MARKS.bend.legend.filter(([has]) => has(bent)).map(([, words]) => words);
      expect(told).toEqual([`${MARKS.bend.behind(bent)} = ${markWords(bent)[0].replace('bent', 'bend')}`]);
    }
  });

  it('begin with what is not marked', () => {
    expect(NO_MARKS).toEqual({
      join: null,
      slideIn: null,
      slideOut: null,
      length: null,
      bendCents: 0,
      vibrato: false,
      harmonic: null,
      whammyBar: null,
      accent: false,
      tremolo: false,
      stroke: null,
    });
    expect(Object.keys(NO_MARKS)).toEqual(Object.keys(MARK_FIELDS));
  });
});
