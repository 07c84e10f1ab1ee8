import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { PrepareService } from './prepare.service.js';

export function prepareRoutes(prepare: PrepareService): Router {
  const router = Router();
  mount(router, 'weather', ({ params, query }) => prepare.weather(params.jobId, query.on, query.sky));
  mount(router, 'jobDay', ({ params, query }) => prepare.day(params.jobId, query.on, query.sky));
  mount(router, 'kit', ({ params }) => prepare.kit(params.jobId));
  mount(router, 'computeSlip', ({ body }) => prepare.slip(body));
  mount(router, 'computeWash', ({ body }) => prepare.wash(body));
  return router;
}
