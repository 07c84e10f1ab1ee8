import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { FormService } from './form.service.js';
import { formingSheetPdf } from './forming-sheet-pdf.js';

export function formRoutes(form: FormService): Router {
  const router = Router();
  mount(router, 'computeShrink', ({ body }) => form.plan(body));
  mount(router, 'computeCloud', ({ body }) => form.cloud(body));
  mount(router, 'formingSheetPdf', async ({ params, query }) => ({
    name: 'forming-sheet.pdf',
    bytes: await formingSheetPdf(await form.document(params.jobId, query.surfaceId), query.paper),
  }));
  return router;
}
