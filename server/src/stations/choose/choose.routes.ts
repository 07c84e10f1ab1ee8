import { Router } from 'express';
import type { Compute } from '../../compute/runners.js';
import { mount } from '../../http/mount.js';

export function chooseRoutes(compute: Compute): Router {
  const router = Router();
  mount(router, 'computeVerdict', ({ body: { films, ...input } }) => compute.run('verdict', { input, films }));
  return router;
}
