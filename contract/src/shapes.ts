/** The player's own shapes, kept across songs. */
import * as z from 'zod';
import type { OwnShape } from '@wild-needle/core/guitar';

export const shapeSchema = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1).max(80),
  notes: z
    .array(z.object({ strings: z.int().min(-11).max(11), frets: z.int().min(-24).max(24) }))
    .min(1)
    .max(12)
    .refine((notes) => new Set(notes.map((n) => n.strings)).size === notes.length, 'a string is used twice'),
}) satisfies z.ZodType<OwnShape>;
export type Shape = z.infer<typeof shapeSchema>;

/** What a shape is stored with; its id stands in the address. */
export const shapeBodySchema = shapeSchema.omit({ id: true });
