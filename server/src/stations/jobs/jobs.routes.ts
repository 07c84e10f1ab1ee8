import { Router } from 'express';
import { mount } from '../../http/mount.js';
import type { ChangeService } from '../../db/change.service.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import type { JobsService } from './jobs.service.js';

export function jobsRoutes(jobs: JobsService, changes: ChangeService, history: Pick<RecordsRepository, 'changesOfJob'>): Router {
  const router = Router();
  mount(router, 'session', ({ query }) => jobs.session(query.deviceId));
  mount(router, 'bench', ({ query }) => jobs.bench(query.personId));
  mount(router, 'jobs', () => jobs.list());
  mount(router, 'createJob', ({ body }) => jobs.create(body));
  mount(router, 'job', ({ params, query }) => jobs.open(params.jobId, query.personId));
  mount(router, 'jobFile', ({ params }) => jobs.file(params.jobId));
  mount(router, 'importJob', ({ body, query }) => jobs.import(body, query));
  mount(router, 'change', async ({ params, body }) => {
    await jobs.owner(params.jobId);
    return changes.apply({ ...body, jobId: params.jobId });
  });
  mount(router, 'undo', async ({ params, body }) => {
    await jobs.owner(params.jobId);
    return changes.undo(params.jobId, body);
  });
  mount(router, 'redo', async ({ params, body }) => {
    await jobs.owner(params.jobId);
    return changes.redo(params.jobId, body);
  });
  mount(router, 'history', async ({ params }) => {
    await jobs.owner(params.jobId);
    return history.changesOfJob(params.jobId);
  });
  return router;
}
