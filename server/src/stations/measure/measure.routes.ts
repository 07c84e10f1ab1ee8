import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { MeasureService } from './measure.service.js';

export function measureRoutes(measure: MeasureService): Router {
  const router = Router();
  mount(router, 'computeSurvey', ({ body }) => measure.survey(body));
  mount(router, 'computeTaped', ({ body }) => measure.taped(body));
  mount(router, 'computeLettering', ({ body }) => measure.letters(body));
  mount(router, 'measuresCsv', ({ params }) => measure.toCsv(params.jobId));
  mount(router, 'importMeasures', ({ params, query, body }) => measure.fromCsv(params.jobId, body, query));
  return router;
}
