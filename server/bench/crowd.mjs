// Five people at work in one job, over HTTP, from a thread of their own: 50 reads and 50 writes a second, first for one second, in which the process gets into its stride, then for
// ten. Tells how long each waited, ms, and the longest of that first second.
import { randomUUID } from 'node:crypto';
import { performance } from 'node:perf_hooks';
import { parentPort, workerData } from 'node:worker_threads';

const { port, jobId, person, surfaces } = workerData;
const ask = async (path, init) => {
  const start = performance.now();
  const answer = await fetch(`http://127.0.0.1:${port}${path}`, init);
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return performance.now() - start;
};
const typists = Array.from({ length: 5 }, () => ({ deviceId: randomUUID(), deviceSeq: 0, queue: Promise.resolve() }));
const [reads, writes] = [[], []];
const WARM = 50;
for (let i = 0; i < WARM + 500; i++) {
  const who = typists[i % typists.length];
  const wanted = performance.now();
  // a device sends its next change when the one before was answered; waiting for that counts
  who.queue = who.queue.then(async () => {
    const patches = [{ op: 'set', kind: 'surface', id: surfaces[i % surfaces.length], field: 'note', value: `seen ${i}` }];
    const draft = { id: randomUUID(), jobId, personId: person, deviceId: who.deviceId, deviceSeq: ++who.deviceSeq, baseRevision: 1e9, label: 'Note', patches };
    await ask(`/api/jobs/${jobId}/changes`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(draft) });
    return performance.now() - wanted;
  });
  writes.push(who.queue);
  reads.push(ask(`/api/jobs/${jobId}?personId=${person}&deviceId=${who.deviceId}`, {}));
  await new Promise((r) => setTimeout(r, 20));
}
const all = { reads: await Promise.all(reads), writes: await Promise.all(writes) };
const first = [...all.reads.slice(0, WARM), ...all.writes.slice(0, WARM)];
parentPort.postMessage({ reads: all.reads.slice(WARM), writes: all.writes.slice(WARM), firstMs: Math.max(...first) });
