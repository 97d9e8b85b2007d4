/** The keys of the deck, on every screen of an open song. */
import type { KeyMap } from '../shared/key-map';

export const DECK_KEYS = {
  play: { on: { ' ': null }, caps: 'Space', does: 'Play, stop' },
  toLoopStart: { on: { Home: null }, caps: 'Home', does: 'To the start of the loop' },
  loop: { on: { l: null }, caps: 'L', does: 'Loop on, off' },
  loopEnd: { on: { '[': 'start', ']': 'end' }, caps: '[ ]', does: 'Loop start, end at the needle' },
  shiftLoop: { on: { '(': -1, ')': 1 }, caps: '( )', does: 'Loop a beat back, on' },
  growLoop: { on: { '{': -1, '}': 1 }, caps: '{ }', does: 'Loop a beat shorter, longer' },
  zoom: { on: {}, caps: 'Wheel on the strip', does: 'Zoom, down to single samples; with Shift scroll' },
  drag: { on: {}, caps: 'Shift drag', does: 'Loop a part of the strip; with Alt off the beats' },
  source: { on: { a: null }, caps: 'A', does: 'Recording, my tab, one in each ear' },
  ears: { on: { e: null }, caps: 'E', does: 'Ears: both, left, right, centre, sides, place' },
  focus: { on: { f: null }, caps: 'F', does: 'Focus: full, bass, body, edge, fewer drums' },
  speed: { on: { '-': -1, '=': 1, '+': 1 }, caps: '− =', does: 'Slower, faster by 5 %' },
  slow: { on: { w: null }, caps: 'W', does: 'Full speed, slow' },
  click: { on: { n: null }, caps: 'N', does: 'Click on the beats' },
  clickLevel: { on: { '<': -1, '>': 1 }, caps: '< >', does: 'Click softer, louder' },
  countIn: { on: { k: null }, caps: 'K', does: 'Count a bar in' },
  pitch: { on: { p: null }, caps: 'P', does: 'Pitch corrected to A = 440' },
  lower: { on: { _: null }, caps: '_', does: 'A semitone lower' },
  higher: { on: { '|': null }, caps: '|', does: 'A semitone higher' },
  quiet: { on: { q: null }, caps: 'Q', does: 'Quiet' },
  pedals: { on: { ':': null }, caps: ':', does: 'Foot pedals' },
  card: { on: { '?': null }, caps: '?', does: 'This card' },
} as const satisfies KeyMap;
