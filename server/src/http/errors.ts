/** Errors that a client is told about, each with a stable code and a status. */
import type { ErrorBody, ErrorCode } from '@wild-needle/contract';

export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: ErrorCode,
    message: string,
    readonly issues: ErrorBody['issues'] = [],
  ) {
    super(message);
    this.name = 'HttpError';
  }

  toBody(): ErrorBody {
    return { code: this.code, message: this.message, issues: this.issues };
  }
}

export class InvalidRequestError extends HttpError {
  constructor(issues: ErrorBody['issues']) {
    const first = issues[0];
    super(
      400,
      'invalid-request',
      first ? `${first.path || 'request'}: ${first.message}` : 'The request is not valid',
      issues,
    );
  }
}

export class NotFoundError extends HttpError {
  constructor(what: string) {
    super(404, 'not-found', `There is no such ${what}.`);
  }
}

export class ConflictError extends HttpError {
  constructor() {
    super(409, 'conflict', 'This song was saved elsewhere in the meantime. Choose which version to keep.');
  }
}

export class ForbiddenError extends HttpError {
  constructor(
    message = 'Wild Needle answers only to pages that it served on this computer: type its address by hand.',
  ) {
    super(403, 'forbidden', message);
  }
}
