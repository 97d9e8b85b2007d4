import { describe, expect, it, vi } from 'vitest';
import { callOf, runKey, type KeyMap, type Press } from './key-map';

const KEYS = {
  step: { on: { ArrowLeft: -1, ArrowRight: 1 }, caps: '← →', does: 'Before, after' },
  select: { on: { 'shift+ArrowLeft': -1 }, caps: 'Shift ←', does: 'Choose several' },
  slide: { on: { s: 'to' }, caps: 'S', does: 'Slide' },
  slideEnd: { on: { S: 'end' }, caps: '⇧S', does: 'Slide in or out' },
  digit: { on: { '1': 1, '2': 2 }, caps: '0–9', does: 'Fret' },
  shape: { on: { Digit1: 0, Digit2: 1 }, caps: 'Shift 1–8', does: 'Shape' },
  own: { on: { 'alt+Digit1': 0 }, caps: 'Alt 1–9', does: 'Own shape' },
  copy: { on: { 'ctrl+c': null }, caps: 'Ctrl C', does: 'Copy' },
  move: { on: { 'ctrl+ArrowLeft': -1 }, caps: 'Ctrl ←', does: 'Move' },
  bar: { on: { 'ctrl+shift+ArrowLeft': -1 }, caps: '', does: 'A bar back' },
  other: { on: { '~': null }, caps: '~', does: 'Other guitar' },
} as const satisfies KeyMap;

const press = (key: string, changes: Partial<Press> = {}): Press => ({
  key,
  code: '',
  shiftKey: false,
  ctrlKey: false,
  metaKey: false,
  altKey: false,
  ...changes,
});
const called = (key: string, changes: Partial<Press> = {}): string | null =>
  callOf(KEYS, press(key, changes))?.name ?? null;

describe('a key map', () => {
  it.each<[string, Partial<Press>, string | null]>([
    ['ArrowLeft', {}, 'step'],
    ['ArrowLeft', { shiftKey: true }, 'select'],
    // Only one direction is selected with: the other walks, as without Shift.
    ['ArrowRight', { shiftKey: true }, 'step'],
    ['s', {}, 'slide'],
    ['S', { shiftKey: true }, 'slideEnd'],
    // Capitals locked.
    ['S', {}, 'slide'],
    ['s', { shiftKey: true }, 'slide'],
    ['1', { code: 'Digit1' }, 'digit'],
    ['!', { code: 'Digit1', shiftKey: true }, 'shape'],
    // A French keyboard types letters on its digit row, and digits with Shift.
    ['é', { code: 'Digit2' }, 'shape'],
    ['2', { code: 'Digit2', shiftKey: true }, 'digit'],
    ['¡', { code: 'Digit1', altKey: true }, 'own'],
    ['c', { ctrlKey: true }, 'copy'],
    ['C', { metaKey: true }, 'copy'],
    ['c', {}, null],
    ['~', { shiftKey: true }, 'other'],
    // Ctrl with Shift is a press of its own, for keys that have a name.
    ['ArrowLeft', { ctrlKey: true, shiftKey: true }, 'bar'],
    ['ArrowLeft', { ctrlKey: true }, 'move'],
    ['C', { ctrlKey: true, shiftKey: true }, 'copy'],
    ['F9', {}, null],
  ])('reads %s with %o as %s', (key, changes, name) => {
    expect(called(key, changes)).toBe(name);
  });

  it('hands over what the press stands for, and keeps the key from the browser', () => {
    const handlers = Object.fromEntries(Object.keys(KEYS).map((name) => [name, vi.fn()])) as never;
    const event = new KeyboardEvent('keydown', { key: 'ArrowLeft', cancelable: true });
    expect(runKey(KEYS, handlers, event)).toBe(true);
    expect((handlers as { step: () => void }).step).toHaveBeenCalledWith(-1, event);
    expect(event.defaultPrevented).toBe(true);
    expect(runKey(KEYS, handlers, new KeyboardEvent('keydown', { key: 'F9' }))).toBe(false);
  });
});
