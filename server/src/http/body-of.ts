/** The body of a request as it comes. A lost connection must not look like the end of a file. */
import type { Request } from 'express';
import { HttpError } from './errors';

/** `what` is named where it is cut. */
export async function* bodyOf(request: Request, what: 'file' | 'backup'): AsyncGenerator<Buffer> {
  // Where it is not read to its end the connection stays, to carry the answer: see `error-handler.ts`.
  for await (const chunk of request.iterator({ destroyOnReturn: false })) yield chunk as Buffer;
  if (!request.complete) {
    throw new HttpError(400, 'invalid-request', `The connection was lost before the ${what} was complete.`);
  }
}
