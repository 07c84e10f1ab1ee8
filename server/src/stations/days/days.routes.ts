import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { Compute } from '../../compute/runners.js';

/** Plans of days: who does what when. */
export function daysRoutes(compute: Compute): Router {
  const router = Router();
  mount(router, 'computeDays', ({ body }) => compute.run('days', body));
  return router;
}
