/** Undo and redo by their usual keys, as every screen with a history has them. */
import type { KeyHandlers, KeyMap } from './key-map';

export const HISTORY_KEYS = {
  undo: { on: { 'ctrl+z': null }, caps: 'Ctrl Z', does: 'Undo; with Shift redo' },
  redo: { on: { 'ctrl+y': null }, caps: 'Ctrl Y', does: 'Redo' },
} as const satisfies KeyMap;

export function historyHandlers(song: { undo(): void; redo(): void }): KeyHandlers<typeof HISTORY_KEYS> {
  return {
    undo: (_, { shiftKey }) => (shiftKey ? song.redo() : song.undo()),
    redo: () => song.redo(),
  };
}
