/** Which key of the Riffs screen does what. Single keys without modifiers, as far as there are any. */
import type { MarkCommand } from '@wild-needle/core/riff';

export type RiffCommand =
  | { readonly do: 'digit'; readonly digit: number }
  | { readonly do: 'shape'; readonly index: number }
  | { readonly do: 'own-shape'; readonly index: number }
  | { readonly do: 'mark'; readonly mark: MarkCommand }
  | {
      readonly do: 'step-strum' | 'step-pass' | 'select' | 'move' | 'lengthen' | 'next-place' | 'fingering';
      readonly by: 1 | -1;
    }
  | { readonly do: 'shift'; readonly frets: number; readonly strings: number }
  | {
      readonly do:
        | 'repeat'
        | 'repeat-bar'
        | 'clear'
        | 'remove'
        | 'check'
        | 'listen'
        | 'keep-variation'
        | 'same-riff'
        | 'tap-rhythm'
        | 'next-layer'
        | 'other-guitar'
        | 'give-away'
        | 'select-all'
        | 'copy'
        | 'paste'
        | 'note'
        | 'next-string'
        | 'let-go';
    };

const MARKS: Readonly<Record<string, MarkCommand>> = {
  m: 'mute',
  x: 'dead',
  '/': 'rest',
  r: 'ring',
  t: 'short',
  s: 'slide',
  S: 'slide-end',
  h: 'hammer',
  '\\': 'tie',
  u: 'bend',
  z: 'vibrato',
  o: 'harmonic',
  b: 'bar',
  "'": 'accent',
  d: 'stroke',
};

const PLAIN: Readonly<Record<string, RiffCommand>> = {
  ArrowLeft: { do: 'step-strum', by: -1 },
  ArrowRight: { do: 'step-strum', by: 1 },
  ArrowUp: { do: 'step-pass', by: -1 },
  ArrowDown: { do: 'step-pass', by: 1 },
  Enter: { do: 'repeat' },
  Backspace: { do: 'clear' },
  Delete: { do: 'remove' },
  Tab: { do: 'next-string' },
  F2: { do: 'note' },
  Escape: { do: 'let-go' },
  ',': { do: 'fingering', by: -1 },
  '.': { do: 'fingering', by: 1 },
  c: { do: 'check' },
  g: { do: 'listen' },
  v: { do: 'keep-variation' },
  y: { do: 'same-riff' },
  i: { do: 'next-place', by: 1 },
  I: { do: 'next-place', by: -1 },
  j: { do: 'tap-rhythm' },
  ';': { do: 'next-layer' },
  '`': { do: 'other-guitar' },
  '~': { do: 'give-away' },
};

const SHIFTED: Readonly<Record<string, RiffCommand>> = {
  ArrowLeft: { do: 'select', by: -1 },
  ArrowRight: { do: 'select', by: 1 },
  Enter: { do: 'repeat-bar' },
};

const CONTROLLED: Readonly<Record<string, RiffCommand>> = {
  ArrowLeft: { do: 'move', by: -1 },
  ArrowRight: { do: 'move', by: 1 },
  ArrowUp: { do: 'shift', frets: 1, strings: 0 },
  ArrowDown: { do: 'shift', frets: -1, strings: 0 },
  a: { do: 'select-all' },
  c: { do: 'copy' },
  v: { do: 'paste' },
};

const WITH_ALT: Readonly<Record<string, RiffCommand>> = {
  ArrowLeft: { do: 'lengthen', by: -1 },
  ArrowRight: { do: 'lengthen', by: 1 },
  ArrowUp: { do: 'shift', frets: 0, strings: -1 },
  ArrowDown: { do: 'shift', frets: 0, strings: 1 },
};

const DIGIT_KEY = /^Digit([1-9])$/;

type Pressed = Pick<KeyboardEvent, 'key' | 'code' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>;

/** The command of a key press; null when it is none of this screen's. */
export function riffCommand({ key, code, shiftKey, ctrlKey, metaKey, altKey }: Pressed): RiffCommand | null {
  const digit = DIGIT_KEY.exec(code)?.[1];
  if (altKey) {
    return digit ? { do: 'own-shape', index: Number(digit) - 1 } : (WITH_ALT[key] ?? null);
  }
  if (ctrlKey || metaKey) return CONTROLLED[key.length === 1 ? key.toLowerCase() : key] ?? null;
  if (/^[0-9]$/.test(key)) return { do: 'digit', digit: Number(key) };
  // The digit row with Shift, on any layout: it types no digit there. 9 and 0 belong to the loop.
  if (digit && Number(digit) <= 8) return { do: 'shape', index: Number(digit) - 1 };
  if (shiftKey && SHIFTED[key]) return SHIFTED[key];
  // With the capitals locked a letter is still the plain key.
  const letter = shiftKey ? key : key.length === 1 ? key.toLowerCase() : key;
  const mark = MARKS[letter] ?? MARKS[letter.toLowerCase()];
  if (mark) return { do: 'mark', mark };
  return PLAIN[letter] ?? PLAIN[letter.toLowerCase()] ?? null;
}
