/** The log of practising: one row for each round that was played. It belongs to the player, and outlives the song that it was about. */
import * as z from 'zod';
import { WAYS } from '@wild-needle/core/practice';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { text } from './text';

/** What an input heard of a round. */
const heardRoundSchema = z.object({
  /** Strums written, played of them, and of those with the notes as written. */
  written: z.int().min(0),
  played: z.int().min(0),
  right: z.int().min(0),
  /** Positive = late. */
  meanMs: z.number(),
  spreadMs: z.number().min(0),
});
export type HeardRound = z.infer<typeof heardRoundSchema>;

export const practiceRoundSchema = z.object({
  id: z.uuid(),
  at: z.iso.datetime(),
  songId: z.uuid(),
  /** Id of the item, see core/practice. */
  item: text(4 * TEXT_LIMITS.id).min(1),
  way: z.enum(WAYS),
  /** All bars of the item were played. */
  isWhole: z.boolean(),
  /** Of the tempo of the recording. */
  percent: z.int().min(25).max(150),
  /** Null where nobody has said. */
  answer: z.enum(['clean', 'slip']).nullable(),
  seconds: z.number().min(0).max(3600),
  heard: heardRoundSchema.nullable(),
});
export type PracticeRound = z.infer<typeof practiceRoundSchema>;

/** What a round is stored with; its id stands in the address. */
export const practiceRoundBodySchema = practiceRoundSchema.omit({ id: true });

export const practiceQuerySchema = z.object({ songId: z.uuid() });
