import type { NextFunction, Request, Response } from 'express';
import { Refusal } from '../problem.js';

const local = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/** The Host must be one of ours (no foreign page can point its own name here), and a request that a page sends must come from a page of ours. */
function checkFrom(req: Request, isOurs: (host: string) => boolean, scheme: 'http' | 'https'): void {
  const host = req.headers.host ?? '';
  if (!isOurs(host)) throw new Refusal('wrong-origin');
  const origin = req.headers.origin;
  if (origin !== undefined && origin !== `${scheme}://${host}`) throw new Refusal('wrong-origin', 'This request comes from a page that is not Yellow Pane.');
}

/** Listening `local` answers to this machine only. */
export function localOnly(req: Request, _res: Response, next: NextFunction): void {
  checkFrom(req, (host) => local.test(host), 'http');
  next();
}

/** Listening in the shop answers to the one address that was chosen. @param hosts what the Host may be; none while it does not listen */
export const onlyAs = (hosts: () => readonly string[], scheme: 'http' | 'https') => (req: Request, _res: Response, next: NextFunction) => {
  checkFrom(req, (host) => hosts().includes(host), scheme);
  next();
};
