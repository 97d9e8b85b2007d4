/** The keys of the Sheet screen. */
import type { KeyMap } from '../../shared/key-map';

const FILES = { 1: 0, 2: 1, 3: 2, 4: 3, 5: 4, 6: 5, 7: 6, 8: 7, 9: 8, 0: 9 } as const;

export const SHEET_KEYS = {
  print: { on: { Enter: null }, caps: 'Enter', does: 'Print, or save as PDF' },
  version: { on: { ',': -1, '.': 1 }, caps: ', .', does: 'Version before, after' },
  takeAway: { on: FILES, caps: '1–9 0', does: 'Take the song away in a format' },
  bringIn: { on: { b: null }, caps: 'B', does: 'Bring a file in' },
  page: { on: { PageUp: -1, PageDown: 1 }, caps: 'PgUp PgDn', does: 'Page before, after' },
} as const satisfies KeyMap;
