import { Router } from 'express';
import { routes, type Change } from '@yellow-pane/contracts';
import { mount, readPart } from '../../http/mount.js';
import { Refusal } from '../../problem.js';
import type { ChangeService } from '../../db/change.service.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import { seenFrom, type JobsService } from '../jobs/jobs.service.js';
import type { LayService } from './lay.service.js';
import type { PhotoStore } from './photo-store.js';
import { runSheetPdf } from './run-sheet-pdf.js';

/** A line now and then keeps the way open through whatever lies between. @source HTML living standard, advice on server-sent events: about 15 s */
const KEEP_ALIVE_MS = 15_000;

export function layRoutes(
  lay: LayService,
  photos: PhotoStore,
  changes: Pick<ChangeService, 'listen'>,
  history: Pick<RecordsRepository, 'find'>,
  jobs: Pick<JobsService, 'since'>,
): Router {
  const router = Router();
  mount(router, 'runSheet', ({ params }) => lay.runSheet(params.jobId, params.surfaceId));
  mount(router, 'squeegee', ({ params }) => lay.squeegee(params.jobId, params.surfaceId));
  mount(router, 'computeHeat', ({ body }) => lay.heat(body));
  mount(router, 'computeRecess', ({ body }) => lay.recess(body));
  mount(router, 'computeDome', ({ body }) => lay.dome(body));
  mount(router, 'computeWrappedCorner', ({ body }) => lay.wrappedCorner(body));
  mount(router, 'computeJoints', ({ body }) => lay.joints(body));
  mount(router, 'computeCorrugation', ({ body }) => lay.corrugation(body));
  mount(router, 'computeSqueegee', ({ body }) => lay.plan(body));
  mount(router, 'layMinutes', () => lay.minutes());
  mount(router, 'runSheetPdf', async ({ params, query }) => ({
    name: 'run-sheet.pdf',
    bytes: await runSheetPdf(await lay.document(params.jobId, query.surfaceId), query.paper),
  }));
  mount(router, 'layLogCsv', async ({ params }) => ({ name: 'log.csv', bytes: await lay.logCsv(params.jobId) }));
  mount(router, 'addPhoto', async ({ body }) => {
    if (!Buffer.isBuffer(body)) throw new Refusal('bad-input', 'Send the picture itself as image/jpeg, image/png or image/webp.');
    return photos.add(body);
  });
  router.get(routes.photo.path, (req, res) => {
    const { photo } = readPart(routes.photo.params, req.params, 'path');
    res.type('image/jpeg').set('Cache-Control', 'private, max-age=31536000, immutable').send(photos.read(photo));
  });
  router.get(routes.jobStream.path, async (req, res) => {
    const { jobId } = readPart(routes.jobStream.params, req.params, 'path');
    if (!(await history.find('job', jobId))) throw new Refusal('job-not-found');
    const after = readPart(routes.jobStream.query, { after: req.headers['last-event-id'] ?? req.query['after'] }, 'query').after;
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform', 'X-Accel-Buffering': 'no' });
    res.write(': here\n\n');
    let sent = after ?? 0;
    const send = (change: Change) => {
      const seen = seenFrom(jobId, change);
      if (!seen || change.revision <= sent) return;
      sent = change.revision;
      res.write(`id: ${change.revision}\ndata: ${JSON.stringify(seen)}\n\n`);
    };
    // listen first, then tell what was missed: nothing falls between
    const waiting: Parameters<typeof send>[0][] = [];
    let isCaughtUp = false;
    const stop = changes.listen((c) => (isCaughtUp ? send(c) : void waiting.push(c)));
    const timer = setInterval(() => void res.write(': here\n\n'), KEEP_ALIVE_MS);
    req.on('close', () => {
      clearInterval(timer);
      stop();
    });
    if (after !== undefined) {
      const missed = await jobs.since(jobId, after);
      // away for too long: the page loads the job anew
      if (missed.isTooMuch) res.write(`event: reload\ndata: ${missed.revision}\n\n`);
      for (const c of missed.changes) send(c);
    }
    isCaughtUp = true;
    waiting.forEach(send);
  });
  return router;
}
