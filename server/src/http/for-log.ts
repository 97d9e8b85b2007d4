/** Errors as the log may keep them. */
import { BaseError } from 'sequelize';
import { errorCode } from '../db/outage';

export interface LoggedError {
  readonly name: string;
  readonly code: string;
  readonly message?: string;
  readonly at: readonly string[];
}

/**
 * What a log may keep of an error. Messages of the database and of its driver quote what was stored, titles and notes
 * among it: of those the code must do.
 */
export function forLog(error: unknown): LoggedError {
  if (!(error instanceof Error)) return { name: typeof error, code: '', at: [] };
  const isOfDatabase = error instanceof BaseError || 'severity' in error;
  return {
    name: error.name,
    code: errorCode(error),
    ...(!isOfDatabase && { message: error.message }),
    at: (error.stack ?? '')
      .split('\n')
      .filter((line) => /^\s+at /.test(line))
      .map((line) => line.trim()),
  };
}
