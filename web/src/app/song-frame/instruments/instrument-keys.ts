/** The keys of the panel of instruments, while it has the focus. */
import { PARTS, type Part } from '@wild-needle/core/parts';

export type InstrumentCommand = 'alone' | 'silent';

/** Digits of each part: alone, then silent. */
export const PART_KEYS: Readonly<Record<Part, Readonly<Record<InstrumentCommand, string>>>> = {
  drums: { alone: '1', silent: '5' },
  bass: { alone: '2', silent: '6' },
  voice: { alone: '3', silent: '7' },
  guitars: { alone: '4', silent: '8' },
};

/** What a key asks for; null for a key of somebody else. */
export function commandOf(key: string): { readonly part: Part; readonly command: InstrumentCommand } | null {
  for (const part of PARTS) {
    for (const command of ['alone', 'silent'] as const) {
      if (PART_KEYS[part][command] === key) return { part, command };
    }
  }
  return null;
}
