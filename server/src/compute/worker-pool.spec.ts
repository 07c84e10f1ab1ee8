import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { asker } from './asker.js';
import type { Compute } from './runners.js';
import { startWorker } from './worker-pool.js';

/** A worker that is busy for as long as it is told, or for ever. */
const script = join(mkdtempSync(join(tmpdir(), 'yp-worker-')), 'worker.mjs');
writeFileSync(
  script,
  `import { parentPort } from 'node:worker_threads';
parentPort.on('message', ({ call, input }) => {
  const until = Date.now() + input.ms;
  while (Date.now() < until) {}
  parentPort.postMessage({ call, result: input.ms });
});`,
);
let compute: Compute;
const busy = (ms: number): Promise<unknown> => compute.run('survey', { ms } as never);
beforeEach(() => void (compute = startWorker(pathToFileURL(script), { survey: 400 })));
afterEach(() => compute.close());

describe('the line before the worker', () => {
  test('what takes too long is stopped and said; the next in line gets its answer', async () => {
    const [long, next] = await Promise.allSettled([busy(1e9), busy(5)]);
    expect(long).toMatchObject({ status: 'rejected', reason: { code: 'took-too-long' } });
    expect(next).toEqual({ status: 'fulfilled', value: 5 });
  });
  test('whoever has gone holds up nobody: their call is stopped in the worker, or leaves the line', async () => {
    // nothing is stopped by the clock here: what nobody stops goes on for a minute
    await compute.close();
    compute = startWorker(pathToFileURL(script), { survey: 60_000 });
    const gone = new AbortController();
    const from = Date.now();
    const [mine, waiting, other] = [asker.run({ isGone: gone.signal }, () => busy(1e9)), asker.run({ isGone: gone.signal }, () => busy(1e9)), busy(5)];
    setTimeout(() => gone.abort(), 50);
    await expect(mine).rejects.toThrow('Nobody waits');
    await expect(waiting).rejects.toThrow('Nobody waits');
    expect(await other).toBe(5);
    expect(Date.now() - from).toBeLessThan(50_000);
  });
  test('a hundred short ones come back in their order', async () => {
    const order: number[] = [];
    await Promise.all(Array.from({ length: 100 }, (_, i) => busy(0).then(() => order.push(i))));
    expect(order).toEqual(Array.from({ length: 100 }, (_, i) => i));
  });
});
