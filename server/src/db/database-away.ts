import { DrizzleQueryError } from 'drizzle-orm';

/** The server that holds the records cannot be reached, or stopped answering in the middle: nobody knows of a change on its way whether it was written. */
export class DatabaseAway extends Error {
  constructor(cause: unknown) {
    super('The database of the bench does not answer.', { cause });
  }
}

/**
 * What a connection says when it breaks, or a server that is going down or coming up. @source PostgreSQL, appendix A, error codes: class 08 connection exception,
 * class 57 operator intervention (57P01 admin_shutdown, 57P02 crash_shutdown, 57P03 cannot_connect_now, 57P05 idle_session_timeout), 53300 too_many_connections
 */
const AWAY = /^(08...|57P0[1235]|53300|ECONN\w+|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENETUNREACH|ENOTFOUND|EAI_AGAIN)$/;

/** Whether an error of the database's driver, or what caused it, is that the database is out of reach. */
export function isOutOfReach(error: unknown): boolean {
  for (let e = error; e instanceof Error; e = e.cause) {
    if (e instanceof DatabaseAway || AWAY.test(String((e as { code?: unknown }).code ?? ''))) return true;
    // the driver has no code for a connection that ended under it
    if (/^(Connection terminated|Client has encountered a connection error|timeout exceeded when trying to connect)/.test(e.message)) return true;
  }
  return false;
}

/** The same of any error: a page that went away in the middle of a request, or a plotter, breaks connections too, and is not the database. */
export function isDatabaseAway(error: unknown): boolean {
  for (let e = error; e instanceof Error; e = e.cause) if (e instanceof DatabaseAway || e instanceof DrizzleQueryError) return isOutOfReach(e);
  return false;
}
