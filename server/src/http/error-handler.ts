/** The one place that turns errors into answers, the same in every environment. */
import type { ErrorRequestHandler } from 'express';
import { AudioProblem } from '../jobs/decode';
import { HttpError } from './errors';

const AUDIO_STATUS = 422;

export const errorHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const known = knownError(error);
  if (!known) request.log.error({ error }, 'request failed');
  const answer =
    known ??
    new HttpError(500, 'internal', 'Something went wrong here; it is in the log of the server. Try again.');
  // A body that was not read to its end would be taken for the next request.
  if (!request.complete) response.setHeader('Connection', 'close');
  response.status(answer.status).json(answer.toBody());
};

function knownError(error: unknown): HttpError | null {
  if (error instanceof HttpError) return error;
  if (error instanceof AudioProblem) return new HttpError(AUDIO_STATUS, error.code, error.message);
  // express.json() marks its errors with a status and `expose`.
  const { status, expose, message } = error as { status?: number; expose?: boolean; message?: string };
  if (status !== undefined && status < 500 && expose) {
    return new HttpError(status, 'invalid-request', `The body can't be read: ${message ?? ''}`);
  }
  return null;
}
