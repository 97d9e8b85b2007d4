/** The keys of the Practice screen. */
import type { KeyMap } from '../../shared/key-map';

export const PRACTICE_KEYS = {
  clean: { on: { Enter: null }, caps: 'Enter', does: 'That round was clean' },
  slip: { on: { Backspace: null }, caps: 'Bksp', does: 'That round had a slip' },
  plan: { on: { ArrowUp: -1, ArrowDown: 1 }, caps: '↑ ↓', does: 'Part of the plan before, after' },
  line: { on: { ArrowLeft: -1, ArrowRight: 1 }, caps: '← →', does: 'Line before, after' },
  input: { on: { h: null }, caps: 'H', does: 'Input on, off: each strum is heard' },
  layer: { on: { ';': null }, caps: ';', does: 'Chords, with strokes, everything' },
  version: {
    on: { ',': -1, '.': 1 },
    caps: ', .',
    does: 'All strings, two strings, one string',
  },
  way: { on: { y: null }, caps: 'Y', does: 'Another way to practise' },
  music: { on: { m: null }, caps: 'M', does: 'Music off, on: the click alone, or silence' },
  full: { on: { z: null }, caps: 'Z', does: 'The whole screen, and back' },
} as const satisfies KeyMap;
