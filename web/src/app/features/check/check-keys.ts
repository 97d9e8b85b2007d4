/** The keys of the Check screen: one for each answer. */
import { HISTORY_KEYS } from '../../shared/history-keys';
import type { KeyMap } from '../../shared/key-map';

const KINDS = { 1: 0, 2: 1, 3: 2, 4: 3, 5: 4, 6: 5, 7: 6, 8: 7, 9: 8, 0: 9 } as const;

export const CHECK_KEYS = {
  step: { on: { ArrowUp: -1, ArrowDown: 1 }, caps: '↑ ↓', does: 'Doubt before, after' },
  main: { on: { Enter: null }, caps: 'Enter', does: 'The first answer; by ear: that is my guess' },
  keep: { on: { y: null }, caps: 'Y', does: 'Keep what is written' },
  riff: { on: { h: null }, caps: 'H', does: 'Change to what is heard, in the riff' },
  pass: { on: { v: null }, caps: 'V', does: 'What is heard, as a variation of this pass' },
  again: { on: { r: null }, caps: 'R', does: 'The bar again at half speed' },
  doubtful: { on: { d: null }, caps: 'D', does: 'Leave doubtful, for later' },
  note: { on: { F2: null }, caps: 'F2', does: 'Note on the strum' },
  also: { on: { b: null }, caps: 'B', does: 'The last answer for the same question elsewhere too' },
  order: { on: { ';': null }, caps: ';', does: 'List by doubt, by place' },
  listen: { on: { g: null }, caps: 'G', does: 'Compare anew, with the ears and focus of the deck' },
  earFirst: { on: { o: null }, caps: 'O', does: 'Shown at once, or ear first' },
  kind: { on: KINDS, caps: '1–9 0', does: 'Ear first: the kind that you hear' },
  fret: { on: { ArrowLeft: -1, ArrowRight: 1 }, caps: '← →', does: 'Ear first: the root along the neck' },
  string: {
    on: { 'shift+ArrowUp': -1, 'shift+ArrowDown': 1 },
    caps: 'Shift ↑ ↓',
    does: 'Ear first: the string of the root',
  },
  uncover: { on: { s: null }, caps: 'S', does: 'Ear first: open without a guess' },
  ...HISTORY_KEYS,
} as const satisfies KeyMap;
