import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { isDatabaseAway } from '../db/database-away.js';
import { refusedBy } from '../db/durable.js';
import { Refusal } from '../problem.js';
import { sendProblem } from './mount.js';

/** A body that says it is packed and is not. */
const isUnpackFault = (error: unknown): boolean => /^Z_/.test(String((error as { code?: unknown } | null)?.code ?? ''));

/** Whatever went wrong, as problem details; what nobody foresaw goes into the log. */
export const asProblem =
  (log: Logger): ErrorRequestHandler =>
  (error, req, res, next) => {
    if (res.headersSent) return next(error);
    // nobody is there to read it
    if (res.destroyed) return;
    const disk = refusedBy(error);
    if (disk) {
      log.error({ err: error, url: req.originalUrl }, 'the disk refused');
      return sendProblem(res, new Refusal(disk.isReadOnly ? 'read-only' : 'disk-full', disk.message), req.originalUrl);
    }
    if (isDatabaseAway(error)) {
      log.error({ err: error, url: req.originalUrl }, 'the database does not answer');
      return sendProblem(res, new Refusal('database-away'), req.originalUrl);
    }
    if (error instanceof Refusal) return sendProblem(res, error, req.originalUrl);
    const status = (error as { status?: number }).status;
    if (status === 413) return sendProblem(res, new Refusal('too-large'), req.originalUrl);
    if (status === 415) return sendProblem(res, new Refusal('wrong-media'), req.originalUrl);
    // a body that ends early, a zip that is none: the sender's fault, whatever the reader calls it
    if (status !== undefined && status >= 400 && status < 500 && status !== 400) return sendProblem(res, new Refusal('bad-input'), req.originalUrl);
    if (isUnpackFault(error)) return sendProblem(res, new Refusal('wrong-media'), req.originalUrl);
    if (status === 400) return sendProblem(res, new Refusal('bad-input', 'This does not read as JSON. Nothing was changed.'), req.originalUrl);
    log.error({ err: error, url: req.originalUrl }, 'failed');
    return sendProblem(res, new Refusal('internal'), req.originalUrl);
  };
