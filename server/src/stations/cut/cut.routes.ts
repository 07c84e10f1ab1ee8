import { Router } from 'express';
import { mount } from '../../http/mount.js';
import { cutListCsv, cutSheetDxf } from './cut-files.js';
import { cutSheetPdf, labelsPdf } from './cut-sheet-pdf.js';
import type { CutService } from './cut.service.js';
import { wholeSvg } from './roll-drawing.js';

export function cutRoutes(cut: CutService): Router {
  const router = Router();
  mount(router, 'computeLayout', ({ body }) => cut.layout(body));
  mount(router, 'methods', ({ params }) => cut.methods(params.jobId, params.filmId));
  mount(router, 'cutSheetPdf', async ({ params, query }) => {
    const sheet = await cut.sheet(params.jobId);
    return { name: `${sheet.doc.job.name} cut sheet.pdf`, bytes: await cutSheetPdf(sheet, query.paper) };
  });
  mount(router, 'labelsPdf', async ({ params, query }) => {
    const sheet = await cut.sheet(params.jobId);
    return { name: `${sheet.doc.job.name} labels.pdf`, bytes: await labelsPdf(sheet, query.paper) };
  });
  mount(router, 'rollSvg', async ({ params }) => {
    const sheet = await cut.sheet(params.jobId);
    return { name: `${sheet.doc.job.name} rolls.svg`, bytes: wholeSvg(sheet.films, sheet.doc.job.units) };
  });
  mount(router, 'rollDxf', async ({ params }) => {
    const sheet = await cut.sheet(params.jobId);
    return { name: `${sheet.doc.job.name} rolls.dxf`, bytes: cutSheetDxf(sheet) };
  });
  mount(router, 'cutListCsv', async ({ params }) => {
    const sheet = await cut.sheet(params.jobId);
    return { name: `${sheet.doc.job.name} cut list.csv`, bytes: cutListCsv(sheet) };
  });
  return router;
}
