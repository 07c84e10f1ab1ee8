import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { CallBacksService } from './call-backs.service.js';
import type { EraseService } from './erase.service.js';
import type { HandOverService } from './hand-over.service.js';

export function handOverRoutes(handOver: HandOverService, erasing: EraseService, calls: CallBacksService): Router {
  const router = Router();
  mount(router, 'handOver', ({ params }) => handOver.seals(params.jobId));
  mount(router, 'handOverPdf', ({ params, query }) => handOver.record(params.jobId, query.placeId, query.paper));
  mount(router, 'careSheetPdf', ({ params, query }) => handOver.care(params.jobId, query.language, query.paper));
  mount(router, 'careLanguages', async () => handOver.languages());
  mount(router, 'calendar', ({ params }) => handOver.calendar(params.jobId));
  mount(router, 'erase', ({ params, body }) => erasing.erase(params.jobId, body));
  mount(router, 'callBacks', ({ query }) => calls.list(query.search));
  return router;
}
