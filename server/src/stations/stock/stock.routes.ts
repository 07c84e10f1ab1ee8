import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { StockService } from './stock.service.js';

export function stockRoutes(stock: StockService): Router {
  const router = Router();
  mount(router, 'stockCsv', () => stock.csv());
  mount(router, 'stockLabels', ({ query }) => stock.labels(query.ids, query.paper));
  mount(router, 'stock', () => stock.lines());
  mount(router, 'importStock', ({ body, query }) => stock.bringIn(body, query.same, query));
  return router;
}
