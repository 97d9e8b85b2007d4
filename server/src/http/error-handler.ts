/** The one place that turns errors into answers, the same in every environment. */
import type { ErrorRequestHandler, Request } from 'express';
import { AudioProblem } from '../audio/audio-problem';
import { ToolFailure } from '../audio/run-tool';
import { isDiskFull, isOutage } from '../db/outage';
import { HttpError } from './errors';
import { forLog } from './for-log';

const AUDIO_STATUS = 422;
/** A body that nobody wants any more is read on for so long; after that the connection is closed. On loopback half a gigabyte takes seconds. */
const LINGER_MS = 30_000;

const AWAY = new HttpError(
  503,
  'unavailable',
  'The database does not answer. Wild Needle waits for it and goes on by itself; what was saved is kept.',
);
const NO_READER = new HttpError(
  503,
  'unavailable',
  'The file could not be read just now: the program that reads it did not run to its end. Try again.',
);
const FULL = new HttpError(
  507,
  'disk-full',
  'The disk of this computer is full, so nothing was stored. What was saved before is kept: make room and try again.',
);
const UNKNOWN = new HttpError(
  500,
  'internal',
  'Something went wrong here; it is in the log of the server. Try again.',
);

export const errorHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const answer = knownError(error) ?? UNKNOWN;
  if (answer.status >= 500) request.log.error({ error: forLog(error) }, 'request failed');
  if (!request.complete) lingerOver(request);
  response.status(answer.status).json(answer.toBody());
};

/** Closing while the client still sends would take the answer along: it is told that it can't write, and nothing else. */
function lingerOver(request: Request): void {
  const close = setTimeout(() => request.socket.destroy(), LINGER_MS);
  request.once('close', () => clearTimeout(close));
  request.resume();
}

function knownError(error: unknown): HttpError | null {
  if (error instanceof HttpError) return error;
  if (error instanceof AudioProblem) return new HttpError(AUDIO_STATUS, error.code, error.message);
  if (error instanceof ToolFailure) return NO_READER;
  if (isDiskFull(error)) return FULL;
  if (isOutage(error)) return AWAY;
  // express.json() marks its errors with a status and `expose`, static files with a status.
  const { status, expose, message } = error as { status?: number; expose?: boolean; message?: string };
  if (status === 404) return new HttpError(404, 'not-found', 'There is no such file.');
  if (status !== undefined && status >= 400 && status < 500) {
    return new HttpError(
      status,
      'invalid-request',
      expose ? `The body can't be read: ${message ?? ''}` : "The request can't be read.",
    );
  }
  return null;
}
