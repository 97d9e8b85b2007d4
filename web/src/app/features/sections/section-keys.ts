/** The keys of the Sections screen. */
import { HISTORY_KEYS } from '../../shared/history-keys';
import type { KeyMap } from '../../shared/key-map';

export const SECTION_KEYS = {
  step: { on: { ArrowUp: -1, ArrowDown: 1 }, caps: '↑ ↓', does: 'Section before, after' },
  begin: { on: { m: null }, caps: 'M', does: 'New part at the needle, with a riff of its own' },
  split: { on: { i: null }, caps: 'I', does: 'Split at the needle' },
  join: { on: { j: null }, caps: 'J', does: 'Join with the next' },
  lengthen: {
    on: { 'shift+ArrowLeft': -1, 'shift+ArrowRight': 1 },
    caps: 'Shift ← →',
    does: 'End a bar earlier, later',
  },
  remove: { on: { Delete: null }, caps: 'Del', does: 'Remove the section, by a second press' },
  disarm: { on: { Escape: null }, caps: 'Esc', does: 'Leave it' },
  double: { on: { d: null }, caps: 'D', does: 'Double the tempo' },
  halve: { on: { h: null }, caps: 'H', does: 'Half the tempo' },
  moveDownbeat: {
    on: { o: 1, O: -1 },
    caps: 'O',
    does: 'First beat of the bar one beat later; with Shift earlier',
  },
  lineHere: { on: { b: null }, caps: 'B', does: 'Put the bar line here' },
  toggleFree: { on: { x: null }, caps: 'X', does: 'Free time in the bar here, or bars again' },
  tap: { on: { t: null }, caps: 'T', does: 'Tap along' },
  restFollows: { on: { g: null }, caps: 'G', does: 'The rest of the song follows what was tapped' },
  keepPass: { on: { v: null }, caps: 'V', does: 'Keep the pass that differs as a variation' },
  samePass: { on: { y: null }, caps: 'Y', does: 'The pass is the riff; the start is right' },
  ...HISTORY_KEYS,
} as const satisfies KeyMap;
