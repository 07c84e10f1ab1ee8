import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { CheckService } from './check.service.js';
import type { DueService } from './due.service.js';

export function checkRoutes(check: CheckService, due: DueService): Router {
  const router = Router();
  mount(router, 'drying', ({ params }) => check.drying(params.jobId));
  mount(router, 'due', () => due.list());
  return router;
}
