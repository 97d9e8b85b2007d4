/** What the ear has named before the program showed what it had heard: to see the ear get better. Belongs to the player, not to a song. */
import * as z from 'zod';
import { TEXT_LIMITS } from '@wild-needle/core/riff';
import { text } from './text';

/** In the order of their keys on screen. */
export const EAR_KINDS = [
  'two-strings',
  'three-strings',
  'fifth-below',
  'flat-five',
  'octave',
  'sus2',
  'sus4',
  'major',
  'minor',
  'single',
] as const;
export type EarKind = (typeof EAR_KINDS)[number];

const namedSchema = z.object({ rootPc: z.int().min(0).max(11), kind: z.enum(EAR_KINDS) });

export const guessSchema = z.object({
  id: z.uuid(),
  at: z.iso.datetime(),
  songId: z.uuid(),
  /** Place in the song, as Check names it. */
  place: text(4 * TEXT_LIMITS.id).min(1),
  guessed: namedSchema,
  /** What it was. */
  heard: namedSchema,
});
export type Guess = z.infer<typeof guessSchema>;

/** What a guess is stored with; its id stands in the address. */
export const guessBodySchema = guessSchema.omit({ id: true });

export const guessesQuerySchema = z.object({ since: z.iso.datetime() });
