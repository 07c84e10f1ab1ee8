import { Router } from 'express';
import { deviceOf, mount } from '../http/mount.js';
import { Refusal } from '../problem.js';
import type { ShopService } from './shop.service.js';

/** How the bench listens and who is let in: only the bench itself is asked. */
export function shopRoutes(shop: ShopService): Router {
  const router = Router();
  router.use('/api/shop', (_req, res, next) => {
    if (deviceOf(res)) throw new Refusal('bench-only');
    next();
  });
  mount(router, 'shop', async () => shop.status());
  mount(router, 'shopListen', ({ body }) => shop.listen(body.address));
  mount(router, 'shopCode', async ({ body }) => shop.code(body));
  mount(router, 'shopRemove', async ({ body }) => shop.remove(body.deviceId));
  return router;
}
