/** What PostgreSQL's errors mean for a request: codes of its manual, appendix A, and of the operating system. */
import { ConnectionError, DatabaseError } from 'sequelize';

/** Class 08 (connection), 57P01 to 57P03 (shut down, crashed, starting), 53300 (too many connections). */
const AWAY = /^(08...|57P0[123]|53300)$/;
/** The network's words for a server that is not there. */
const NETWORK_AWAY = ['ECONNREFUSED', 'ECONNRESET', 'EPIPE', 'ETIMEDOUT', 'ENOTFOUND'];
/** `pg` says these in words only. */
const CLOSED = /Connection terminated|Client has encountered a connection error|not queryable/;

/** The error under Sequelize's own. */
function causeOf(error: unknown): unknown {
  return error instanceof DatabaseError || error instanceof ConnectionError ? error.parent : error;
}

/** The code of PostgreSQL or of the operating system; '' where there is none. */
export function errorCode(error: unknown): string {
  const { code } = (causeOf(error) ?? {}) as { code?: unknown };
  return typeof code === 'string' ? code : '';
}

/** The database can't be reached just now; it may be starting or gone for a moment. */
export function isOutage(error: unknown): boolean {
  if (error instanceof ConnectionError) return true;
  const cause = causeOf(error);
  const code = errorCode(error);
  return (
    AWAY.test(code) || NETWORK_AWAY.includes(code) || (cause instanceof Error && CLOSED.test(cause.message))
  );
}

/** No room on the disk: of the database (53100) or of the spool folder. */
export function isDiskFull(error: unknown): boolean {
  return ['53100', 'ENOSPC', 'EDQUOT'].includes(errorCode(error));
}
