/** The keys of the Riffs screen. Single keys without modifiers, as far as there are any. */
import type { MarkCommand } from '@wild-needle/core/riff';
import { HISTORY_KEYS } from '../../../shared/history-keys';
import type { KeyMap } from '../../../shared/key-map';
import { MARK_COMMANDS, MARK_VIEWS } from '../../../tab/mark-views';

/** A row for each mark, under the mark's own name. */
const MARK_KEYS = Object.fromEntries(
  MARK_COMMANDS.map((mark) => {
    const { key, cap, does } = MARK_VIEWS[mark];
    return [`mark-${mark}`, { on: { [key]: mark }, caps: cap, does }];
  }),
) as Readonly<Record<`mark-${MarkCommand}`, { on: Record<string, MarkCommand>; caps: string; does: string }>>;

const DIGITS = { 0: 0, 1: 1, 2: 2, 3: 3, 4: 4, 5: 5, 6: 6, 7: 7, 8: 8, 9: 9 } as const;

/** Places on the digit row, counted from nought. */
function places(prefix: string, count: number): Readonly<Record<string, number>> {
  return Object.fromEntries(Array.from({ length: count }, (_, i) => [`${prefix}Digit${i + 1}`, i]));
}

export const RIFF_KEYS = {
  stepStrum: { on: { ArrowLeft: -1, ArrowRight: 1 }, caps: '← →', does: 'Strum before, after' },
  stepPass: { on: { ArrowUp: -1, ArrowDown: 1 }, caps: '↑ ↓', does: 'Pass before, after' },
  digit: { on: DIGITS, caps: '0–9', does: 'Fret on the chosen string' },
  nextString: {
    on: { Tab: null },
    caps: 'Tab',
    does: 'Next string up, while the tab has the focus; from the highest on it leaves',
  },
  // The digit row with Shift: 9 and 0 belong to the loop.
  shape: {
    on: places('', 8),
    caps: 'Shift 1–8',
    does: 'Two strings, three, inverted (fifth in the bass), flat five, octave, sus2, sus4, one finger',
  },
  ownShape: { on: places('alt+', 9), caps: 'Alt 1–9', does: 'Shapes of your own' },
  clear: { on: { Backspace: null }, caps: '⌫', does: 'Take the string out' },
  remove: { on: { Delete: null }, caps: 'Del', does: 'Take the strum out' },
  repeat: { on: { Enter: null }, caps: 'Enter', does: 'Strike the chord once more behind it' },
  repeatBar: { on: { 'shift+Enter': null }, caps: '⇧ Enter', does: 'The whole bar once more in the next' },
  nextPlace: { on: { i: 1, I: -1 }, caps: 'I, Shift I', does: 'To the next place, back' },
  tapRhythm: { on: { j: null }, caps: 'J', does: 'Tap the rhythm with Space' },
  letGo: { on: { Escape: null }, caps: 'Esc', does: 'Let go of the strum: the neck follows the needle' },
  fingering: { on: { ',': -1, '.': 1 }, caps: ', .', does: 'Try another way to play it; Enter writes it' },
  chooseString: {
    on: { 'shift+ArrowUp': -1, 'shift+ArrowDown': 1 },
    caps: 'Shift ↑ ↓',
    does: 'String above, below',
  },
  select: { on: { 'shift+ArrowLeft': -1, 'shift+ArrowRight': 1 }, caps: 'Shift ← →', does: 'Choose several' },
  selectAll: { on: { 'ctrl+a': null }, caps: 'Ctrl A', does: 'Choose all' },
  pick: { on: { 'ctrl+Enter': null }, caps: 'Ctrl Enter', does: 'Keep this strum chosen, and walk on' },
  selectAlike: { on: { 'alt+a': null }, caps: 'Alt A', does: 'Choose all that are played like this one' },
  nextDoubt: {
    on: { F3: 1, 'shift+F3': -1 },
    caps: 'F3',
    does: 'Next doubtful strum; with Shift the one before',
  },
  acceptHeard: { on: { 'alt+Enter': null }, caps: 'Alt Enter', does: 'Write the strum as it was heard' },
  nextStep: {
    on: { 'alt+i': null },
    caps: 'Alt I',
    does: 'Places: eighths, sixteenths, thirty-seconds, triplets, sextuplets',
  },
  stepRiff: {
    on: { 'alt+PageUp': -1, 'alt+PageDown': 1 },
    caps: 'Alt PgUp PgDn',
    does: 'Riff before, after',
  },
  stepSection: {
    on: { 'shift+PageUp': -1, 'shift+PageDown': 1 },
    caps: 'Shift PgUp PgDn',
    does: 'Section of the riff before, after',
  },
  nextVariation: { on: { 'alt+;': null }, caps: 'Alt ;', does: 'As written, and each variation' },
  move: {
    on: { 'ctrl+ArrowLeft': -1, 'ctrl+ArrowRight': 1 },
    caps: 'Ctrl ← →',
    does: 'Move by a sixteenth, or a step that is shorter',
  },
  shift: {
    on: {
      'ctrl+ArrowUp': { frets: 1, strings: 0 },
      'ctrl+ArrowDown': { frets: -1, strings: 0 },
    },
    caps: 'Ctrl ↑ ↓',
    does: 'Move along the neck',
  },
  cross: {
    on: { 'alt+ArrowUp': { frets: 0, strings: -1 }, 'alt+ArrowDown': { frets: 0, strings: 1 } },
    caps: 'Alt ↑ ↓',
    does: 'Move across the strings',
  },
  lengthen: {
    on: { 'alt+ArrowLeft': -1, 'alt+ArrowRight': 1 },
    caps: 'Alt ← →',
    does: 'Sound shorter, longer',
  },
  copy: { on: { 'ctrl+c': null }, caps: 'Ctrl C', does: 'Copy' },
  paste: { on: { 'ctrl+v': null }, caps: 'Ctrl V', does: 'Put in' },
  ...MARK_KEYS,
  check: { on: { c: null }, caps: 'C', does: 'Checked by ear, and back' },
  note: { on: { F2: null }, caps: 'F2', does: 'Note on the strum' },
  keepVariation: { on: { v: null }, caps: 'V', does: 'Keep as variation' },
  sameRiff: { on: { y: null }, caps: 'Y', does: 'As written, misheard' },
  listen: { on: { g: null }, caps: 'G', does: 'Measure the loop or the song again' },
  takeAnew: { on: { 'alt+y': null }, caps: 'Alt Y', does: 'Take what was measured again' },
  leaveAnew: { on: { 'alt+n': null }, caps: 'Alt N', does: 'Leave it as it is written' },
  turnBars: { on: { PageUp: -1, PageDown: 1 }, caps: 'PgUp PgDn', does: 'Bars before, after' },
  panel: { on: { F6: null }, caps: 'F6', does: 'Panel wider, narrower' },
  nextLayer: { on: { ';': null }, caps: ';', does: 'Chords, strokes, all' },
  otherGuitar: { on: { '`': null }, caps: '`', does: 'Other guitar' },
  giveAway: { on: { '~': null }, caps: '~', does: 'Give it this strum' },
  ...HISTORY_KEYS,
} as const satisfies KeyMap;
