/** Texts as PostgreSQL can keep them. */
import * as z from 'zod';

/**
 * Neither the character NUL nor half of a surrogate pair: PostgreSQL stores neither in `text` nor in `jsonb` (its manual,
 * sections 8.3 and 8.14). As a pattern, so that the OpenAPI description says it too.
 */
const STORABLE = /^(?:[^\0\p{Cs}])*$/u;
const SAY = 'has a character that cannot be stored: NUL, or half of a surrogate pair';

/** A text of at most `longest` UTF-16 units. */
export function text(longest: number): z.ZodString {
  return z.string().max(longest).regex(STORABLE, SAY);
}

/** The same without white space around it. */
export function trimmedText(longest: number): z.ZodString {
  return z.string().trim().max(longest).regex(STORABLE, SAY);
}
