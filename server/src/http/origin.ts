import type { NextFunction, Request, Response } from 'express';
import { Refusal } from '../problem.js';

const local = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/**
 * Listening `local` answers to this machine only: the Host must be a local name (no foreign page can point its own name
 * here), and a request that a page sends must come from a page of ours.
 */
export function localOnly(req: Request, _res: Response, next: NextFunction): void {
  const host = req.headers.host ?? '';
  if (!local.test(host)) throw new Refusal('wrong-origin');
  const origin = req.headers.origin;
  if (origin !== undefined && origin !== `http://${host}`) throw new Refusal('wrong-origin', 'This request comes from a page that is not Yellow Pane.');
  next();
}
