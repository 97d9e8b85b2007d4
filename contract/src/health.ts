import * as z from 'zod';

export const healthSchema = z.object({
  status: z.enum(['ok', 'failing']),
  database: z.boolean(),
  queue: z.boolean(),
  version: z.string(),
});
export type Health = z.infer<typeof healthSchema>;
