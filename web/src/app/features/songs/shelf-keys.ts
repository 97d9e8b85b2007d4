/** The keys of the shelf. */
import type { KeyMap } from '../../shared/key-map';

export const SHELF_KEYS = {
  choose: { on: { ArrowDown: 1, ArrowUp: -1 }, caps: '↑ ↓', does: 'Choose a song' },
  carryOn: { on: { Enter: null }, caps: 'Enter', does: 'Carry on with the chosen song, at its next step' },
  file: { on: { n: null }, caps: 'N', does: 'Choose a file' },
  record: { on: { r: null }, caps: 'R', does: 'Record a take: input on, record, stop' },
  search: { on: { '/': null }, caps: '/', does: 'Search' },
  sort: { on: { s: null }, caps: 'S', does: 'Sort: last worked, due first, title' },
  ask: { on: { i: null }, caps: 'I', does: 'Add what somebody asks for' },
  edit: { on: { t: null }, caps: 'T', does: 'Title, artist and tags of the chosen song' },
  backUp: { on: { b: null }, caps: 'B', does: 'Back up everything' },
} as const satisfies KeyMap;
