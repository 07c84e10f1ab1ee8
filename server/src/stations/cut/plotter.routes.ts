import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { PlotterService } from './plotter.service.js';

export function plotterRoutes(plotter: PlotterService): Router {
  const router = Router();
  mount(router, 'plotSheet', async ({ params, query }) => {
    const { paths, ...rest } = await plotter.sheet(params.jobId, params.pieceId, query);
    return { ...rest, paths: paths.map((p) => ({ kind: p.kind, points: [...p.points] })) };
  });
  mount(router, 'plotHpgl', ({ params, query }) => plotter.hpgl(params.jobId, params.pieceId, query));
  mount(router, 'plotDxf', ({ params, query }) => plotter.dxf(params.jobId, params.pieceId, query));
  mount(router, 'plotter', ({ query }) => plotter.status(query.from));
  mount(router, 'plotterStart', ({ params, body }) => plotter.start(params.jobId, body));
  mount(router, 'plotterAct', ({ body }) => plotter.act(body.act));
  return router;
}
