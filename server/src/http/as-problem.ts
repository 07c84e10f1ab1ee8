import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { Refusal } from '../problem.js';
import { sendProblem } from './mount.js';

/** Whatever went wrong, as problem details; what nobody foresaw goes into the log. */
export const asProblem =
  (log: Logger): ErrorRequestHandler =>
  (error, req, res, next) => {
    if (res.headersSent) return next(error);
    if (error instanceof Refusal) return sendProblem(res, error, req.originalUrl);
    const status = (error as { status?: number }).status;
    if (status === 413) return sendProblem(res, new Refusal('too-large'), req.originalUrl);
    if (status === 400) return sendProblem(res, new Refusal('bad-input', 'This does not read as JSON. Nothing was changed.'), req.originalUrl);
    log.error({ err: error, url: req.originalUrl }, 'failed');
    return sendProblem(res, new Refusal('internal'), req.originalUrl);
  };
