/**
 * What is written about a recording, held against it from the command line: `wild-needle/written@1` in, `wild-needle/verdicts@1` out.
 */
import * as z from 'zod';
import type { Doubts, Judgement } from '@wild-needle/core/check';
import type { MidiNote } from '@wild-needle/core/units';

const seconds = z.number().nonnegative();

const writtenStrumSchema = z.object({
  timeS: seconds,
  durationS: z.number().positive(),
  /** One for each string, lowest first, counted from the capo; null = not played. */
  frets: z.array(z.int().min(0).max(36).nullable()),
  palmMute: z.boolean(),
  dead: z.boolean(),
});

export const writtenSchema = z
  .object({
    schema: z.literal('wild-needle/written@1'),
    tuning: z.object({
      stringsMidi: z.array(z.int().min(0).max(127)).min(1).max(12),
      capo: z.int().min(0).max(24),
    }),
    beatsS: z.array(seconds),
    strums: z.array(writtenStrumSchema),
  })
  .refine(({ tuning, strums }) => strums.every((s) => s.frets.length === tuning.stringsMidi.length), {
    message: 'each strum must have as many frets as the tuning has strings',
  })
  .refine(({ strums }) => strums.every((s, i) => i === 0 || s.timeS >= strums[i - 1].timeS), {
    message: 'strums must be in order of time',
  });

export type Written = z.infer<typeof writtenSchema>;

/** The answer; times in seconds of the recording, offsets in milliseconds. */
export interface Verdicts {
  readonly schema: 'wild-needle/verdicts@1';
  readonly strums: readonly {
    readonly verdict: Judgement['verdict'];
    readonly doubt: number;
    readonly kinds: Doubts;
    readonly heard: {
      readonly midi: readonly MidiNote[];
      readonly palmMute: boolean;
      readonly dead: boolean;
      readonly offsetMs: number;
    } | null;
    readonly reason: string;
  }[];
  readonly extra: readonly {
    readonly timeS: number;
    readonly midi: readonly MidiNote[];
    readonly confidence: number;
  }[];
}
