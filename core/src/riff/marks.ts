/** Marks set by one key each: pressing it again takes the mark back or goes on to the next of its kind. */
import { hasHarmonic } from '../guitar';
import { NO_MARKS, type Marks, type Strum } from './document';

export type MarkCommand =
  | 'mute'
  | 'dead'
  | 'rest'
  | 'ring'
  | 'short'
  | 'slide'
  | 'slide-end'
  | 'hammer'
  | 'tie'
  | 'bend'
  | 'vibrato'
  | 'harmonic'
  | 'bar'
  | 'accent'
  | 'stroke';

/** Bends that are played: a quarter tone for the blues, a semitone, a whole tone, three semitones (common practice). */
const BENDS = [0, 50, 100, 200, 300];
/** A slide that comes from or goes nowhere in particular. */
const SLIDE_ENDS = [
  { slideIn: null, slideOut: null },
  { slideIn: 'below', slideOut: null },
  { slideIn: 'above', slideOut: null },
  { slideIn: null, slideOut: 'down' },
  { slideIn: null, slideOut: 'up' },
] as const satisfies readonly Partial<Marks>[];

function following<T>(values: readonly T[], current: T): T {
  return values[(values.indexOf(current) + 1) % values.length];
}

function toggled<T>(current: T | null, value: T): T | null {
  return current === value ? null : value;
}

function changeMarks({ marks, frets }: Strum, command: MarkCommand): Partial<Marks> {
  switch (command) {
    case 'ring':
    case 'short':
      return { length: toggled(marks.length, command) };
    case 'slide':
    case 'hammer':
    case 'tie':
      return { join: toggled(marks.join, command) };
    case 'slide-end': {
      const at = SLIDE_ENDS.findIndex((e) => e.slideIn === marks.slideIn && e.slideOut === marks.slideOut);
      return SLIDE_ENDS[(at + 1) % SLIDE_ENDS.length];
    }
    case 'bend':
      return { bendCents: following(BENDS, marks.bendCents) };
    case 'vibrato':
      return { vibrato: !marks.vibrato };
    case 'harmonic': {
      // A natural one needs a node under the finger; elsewhere only the pinch is possible.
      const natural = frets.length > 0 && frets.every((f) => hasHarmonic(f.fret));
      return { harmonic: following(natural ? [null, 'natural', 'pinch'] : [null, 'pinch'], marks.harmonic) };
    }
    case 'bar':
      return { whammyBar: following([null, 'dip', 'dive'], marks.whammyBar) };
    case 'accent':
      return { accent: !marks.accent };
    case 'stroke':
      return { stroke: following([null, 'down', 'up'], marks.stroke) };
    default:
      return {};
  }
}

/**
 * The strum with one mark changed. Palm mute, dead stroke and rest exclude each other, and the frets are kept for turning
 * them back; a dead stroke and a rest have no pitch to bend.
 */
export function applyMark(strum: Strum, command: MarkCommand): Strum {
  const plain = { ...strum, palmMute: false, dead: false, rest: false, trust: 'checked' as const };
  switch (command) {
    case 'mute':
      return { ...plain, palmMute: !strum.palmMute };
    case 'dead':
      return { ...plain, dead: !strum.dead, marks: { ...NO_MARKS, stroke: strum.marks.stroke } };
    case 'rest':
      return { ...plain, rest: !strum.rest, marks: strum.rest ? strum.marks : NO_MARKS };
    case 'accent':
    case 'stroke':
      return { ...strum, marks: { ...strum.marks, ...changeMarks(strum, command) }, trust: 'checked' };
    default:
      if (strum.dead || strum.rest) return strum;
      return { ...strum, marks: { ...strum.marks, ...changeMarks(strum, command) }, trust: 'checked' };
  }
}

/** What a command goes round in: the state of its mark. */
export function markState({ palmMute, dead, rest, marks }: Strum, command: MarkCommand): string {
  switch (command) {
    case 'mute':
      return String(palmMute);
    case 'dead':
      return String(dead);
    case 'rest':
      return String(rest);
    case 'ring':
    case 'short':
      return String(marks.length === command);
    case 'slide':
    case 'hammer':
    case 'tie':
      return String(marks.join === command);
    case 'slide-end':
      return `${marks.slideIn}/${marks.slideOut}`;
    case 'bend':
      return String(marks.bendCents);
    case 'vibrato':
      return String(marks.vibrato);
    case 'harmonic':
      return String(marks.harmonic);
    case 'bar':
      return String(marks.whammyBar);
    case 'accent':
      return String(marks.accent);
    case 'stroke':
      return String(marks.stroke);
  }
}
