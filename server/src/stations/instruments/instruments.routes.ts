import { Router } from 'express';
import { routes } from '@yellow-pane/contracts';
import { mount } from '../../http/mount.js';
import type { InstrumentBench } from '../../instruments/instrument-bench.js';

/** A line now and then keeps the way open through whatever lies between. @source HTML living standard, advice on server-sent events: about 15 s */
const KEEP_ALIVE_MS = 15_000;

export function instrumentRoutes(instruments: InstrumentBench): Router {
  const router = Router();
  mount(router, 'instruments', async () => instruments.statuses());
  mount(router, 'instrumentAct', async ({ body }) => instruments.act(body));
  router.get(routes.instrumentStream.path, (req, res) => {
    res.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store, no-transform', 'X-Accel-Buffering': 'no' });
    const send = (status: unknown) => void res.write(`data: ${JSON.stringify(status)}\n\n`);
    instruments.statuses().forEach(send);
    const stop = instruments.listen(send);
    const timer = setInterval(() => void res.write(': here\n\n'), KEEP_ALIVE_MS);
    req.on('close', () => {
      clearInterval(timer);
      stop();
    });
  });
  return router;
}
