/** The one shape of every error answer, and the codes that screens turn into words. */
import * as z from 'zod';

/** What can be wrong with an audio file. */
export const audioProblemCodeSchema = z.enum([
  'no-file',
  'not-audio',
  'empty',
  'cut-off',
  'too-long',
  'too-large',
  'silent',
  'too-many-channels',
  /** Samples that are infinite, no numbers, or far over full scale. */
  'broken-samples',
  /** Reading it came to a standstill and was stopped. */
  'too-slow',
]);
export type AudioProblemCode = z.infer<typeof audioProblemCodeSchema>;

export const errorCodeSchema = z.enum([
  ...audioProblemCodeSchema.options,
  /** A parameter or body does not fit its schema; `issues` says where. */
  'invalid-request',
  'not-found',
  /** Somebody else saved in between; the current document is at the song's address. */
  'conflict',
  /** The request comes from another host or page. */
  'forbidden',
  /** The database or a tool does not answer just now; asking again later helps. */
  'unavailable',
  'disk-full',
  'internal',
]);
export type ErrorCode = z.infer<typeof errorCodeSchema>;

export const errorSchema = z.object({
  code: errorCodeSchema,
  /** One sentence that says what was wrong and what would work. */
  message: z.string(),
  issues: z.array(z.object({ path: z.string(), message: z.string() })),
});
export type ErrorBody = z.infer<typeof errorSchema>;
