import { Router } from 'express';
import type { Patch } from '@yellow-pane/contracts';
import { mount } from '../../http/mount.js';
import type { ChangeService } from '../../db/change.service.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import type { JobsService } from './jobs.service.js';
import { documentAsJson } from './open-jobs.js';

/** When a line of the log came in is for the bench to say. */
const notYetReceived = (patch: Patch): Patch =>
  patch.op === 'add' && patch.kind === 'layEntry' ? { ...patch, value: { ...patch.value, receivedAt: null } } : patch;

export function jobsRoutes(jobs: JobsService, changes: ChangeService, history: Pick<RecordsRepository, 'changesOfJob'>): Router {
  const router = Router();
  mount(router, 'session', async ({ query, device }) => ({ ...(await jobs.session(query.deviceId)), admitted: device }));
  mount(router, 'bench', ({ query }) => jobs.bench(query.personId, query.deviceId));
  mount(router, 'jobs', ({ query }) => jobs.list(query));
  mount(router, 'deletedJobs', () => jobs.deleted());
  mount(router, 'bringBackJob', ({ params, body }) => jobs.bringBack(params.jobId, body));
  mount(router, 'createJob', ({ body }) => jobs.create(body));
  mount(router, 'job', ({ params, query }) => jobs.open(params.jobId, query.personId, query.deviceId), documentAsJson);
  mount(router, 'changesSince', ({ params, query }) => jobs.since(params.jobId, query.after));
  mount(router, 'jobFile', ({ params }) => jobs.file(params.jobId));
  mount(router, 'importJob', ({ body, query }) => jobs.import(body, query));
  mount(router, 'change', async ({ params, body }) => {
    await jobs.owner(params.jobId);
    return changes.apply({ ...body, jobId: params.jobId, patches: body.patches.map(notYetReceived) });
  });
  mount(router, 'undo', async ({ params, body }) => {
    await jobs.everOwner(params.jobId);
    return changes.undo(params.jobId, body);
  });
  mount(router, 'redo', async ({ params, body }) => {
    await jobs.everOwner(params.jobId);
    return changes.redo(params.jobId, body);
  });
  mount(router, 'history', async ({ params }) => {
    await jobs.everOwner(params.jobId);
    return history.changesOfJob(params.jobId);
  });
  return router;
}
