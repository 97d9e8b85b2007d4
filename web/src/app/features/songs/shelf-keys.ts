/** The keys of the shelf. */
import type { KeyMap } from '../../shared/key-map';

export const SHELF_KEYS = {
  choose: { on: { n: null }, caps: 'N', does: 'Choose a file' },
  record: { on: { r: null }, caps: 'R', does: 'Record a take: input on, record, stop' },
  openFirst: { on: { Enter: null }, caps: 'Enter', does: 'Open the song on top' },
} as const satisfies KeyMap;
