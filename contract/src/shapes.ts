/** The player's own shapes, kept across songs. */
import * as z from 'zod';
import { MAX_FRET, type OwnShape } from '@wild-needle/core/guitar';
import { COUNT_LIMITS, TEXT_LIMITS } from '@wild-needle/core/riff';
import { trimmedText } from './text';
import { assertSameType, type SameType } from './same-type';

/** From the lowest note that a string can have to the highest. */
const MOST_SEMITONES = 127;
const MOST_STRINGS_APART = COUNT_LIMITS.strings - 1;

export const shapeSchema = z.object({
  id: z.uuid(),
  name: trimmedText(TEXT_LIMITS.name).min(1),
  notes: z
    .array(
      z.object({
        strings: z.int().min(-MOST_STRINGS_APART).max(MOST_STRINGS_APART),
        frets: z.int().min(-MAX_FRET).max(MAX_FRET),
        semitones: z.int().min(-MOST_SEMITONES).max(MOST_SEMITONES).optional(),
      }),
    )
    .min(1)
    .max(COUNT_LIMITS.strings)
    .refine((notes) => new Set(notes.map((n) => n.strings)).size === notes.length, 'a string is used twice'),
});
assertSameType<SameType<z.infer<typeof shapeSchema>, OwnShape>>();
export type Shape = z.infer<typeof shapeSchema>;

/** What a shape is stored with; its id stands in the address. */
export const shapeBodySchema = shapeSchema.omit({ id: true });
