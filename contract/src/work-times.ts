/** How long hands were on a song. */
import * as z from 'zod';
import { STEPS } from './songs';

/** Stretches are sent while somebody works: a long one would be no work. */
const MOST_S = 600;

export const workTimeBodySchema = z.object({
  songId: z.uuid(),
  step: z.enum(STEPS),
  /** When it ended. */
  at: z.iso.datetime(),
  seconds: z.number().min(0).max(MOST_S),
});

export const workTimesQuerySchema = z.object({ since: z.iso.datetime() });

export const workedSchema = z.object({
  songId: z.uuid(),
  title: z.string(),
  step: z.enum(STEPS),
  /** Day of the server's clock. */
  day: z.iso.date(),
  seconds: z.number(),
});
export type Worked = z.infer<typeof workedSchema>;
