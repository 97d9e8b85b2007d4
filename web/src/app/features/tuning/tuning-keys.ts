/** The keys of the Tuning screen. */
import { HISTORY_KEYS } from '../../shared/history-keys';
import type { KeyMap } from '../../shared/key-map';

export const TUNING_KEYS = {
  correct: { on: { '1': null }, caps: '1', does: 'Correct the recording' },
  retune: { on: { '2': null }, caps: '2', does: 'Retune the guitar' },
  soundAll: { on: { g: null }, caps: 'G', does: 'Sound all strings' },
  otherGuitar: { on: { '`': null }, caps: '`', does: 'Other guitar' },
  ...HISTORY_KEYS,
} as const satisfies KeyMap;
