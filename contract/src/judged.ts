/** A take held against its tab from the command line: `wild-needle/written@1` in, `wild-needle/judged@1` out. */
import type { JudgedStrum } from '@wild-needle/core/practice';
import type { MidiNote } from '@wild-needle/core/units';

/** The answer; times in seconds of the tab, offsets in milliseconds. */
export interface Judged {
  readonly schema: 'wild-needle/judged@1';
  readonly latencyMs: number;
  readonly strums: readonly {
    readonly played: boolean;
    readonly offsetMs: number | null;
    readonly right: number;
    readonly mute: JudgedStrum['mute'];
    readonly heard: { readonly midi: readonly MidiNote[] } | null;
  }[];
  readonly extra: readonly { readonly timeS: number }[];
  readonly summary: {
    readonly played: number;
    readonly right: number;
    readonly meanOffsetMs: number;
    readonly spreadMs: number;
  };
}
