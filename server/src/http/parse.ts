/** Everything that comes in is parsed here; what does not fit ends as a 400 that says where. */
import type * as z from 'zod';
import { InvalidRequestError } from './errors';

export function parse<T>(schema: z.ZodType<T>, value: unknown): T {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  throw new InvalidRequestError(
    result.error.issues.slice(0, 20).map((i) => ({ path: i.path.join('.'), message: i.message })),
  );
}
