import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { Worker } from 'node:worker_threads';
import { pino } from 'pino';
import { v7 as uuidv7 } from 'uuid';
import type { ChangeDraft, Patch, Reading } from '@yellow-pane/contracts';
import { demoPersons, ternPoint } from '@yellow-pane/demo';
import { createApp } from '../src/app.js';
import { setUpBench } from '../src/bench-setup.js';
import { inPlace } from '../src/compute/runners.js';
import { newDatabase } from '../src/bench.testing.js';
import { openInMemory } from '../src/db/database.js';
import { openOnServer } from '../src/db/postgres-store.js';
import { documentAsJson } from '../src/stations/jobs/open-jobs.js';

/**
 * What the record costs as the work grows, in CPU time of this process: the list of all jobs (goal 50 ms with 5 000 of them), opening a job of 60 panes (goal 4 ms) and one
 * tape more in it (goal 10 ms), each with many changes behind it. The reference in the same run is one bare statement of the database.
 */
const [JOBS, CHANGES] = [Number(process.env['JOBS'] ?? 5000), Number(process.env['CHANGES'] ?? 5000)];
const EIGHT = [['widthLargest', 900], ['widthTop', 899], ['widthMiddle', 900], ['widthBottom', 899], ['heightLargest', 1400], ['heightLeft', 1399], ['heightMiddle', 1400], ['heightRight', 1399]] as const; // prettier-ignore
const person = demoPersons[0]!.id;
// with node tools/postgres.mjs before it, on a PostgreSQL server; the time of the server's own processes is not in it then
const isOnServer = !!process.env['YELLOW_PANE_TEST_DATABASE_URL'];
const open = isOnServer ? await openOnServer(await newDatabase(), pino({ level: 'error' }), async () => undefined) : await openInMemory();
console.log(isOnServer ? 'on a PostgreSQL server' : 'on the embedded engine, in memory');
const app = createApp({
  db: open.db,
  journal: null,
  compute: inPlace,
  now: () => new Date(),
  log: pino({ level: 'silent' }),
  webDir: null,
  backup: async () => '',
  requestsIn10s: 1e6,
});
await setUpBench(app, 'demo');
const file = ternPoint();
const jobId = file.job.id;

const cpuMs = (): number => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
};
async function timed(name: string, goalMs: number | null, runs: number, work: (i: number) => Promise<unknown>): Promise<void> {
  const ms: number[] = [];
  for (let i = 0; i < runs; i++) {
    const start = cpuMs();
    await work(i);
    ms.push(cpuMs() - start);
  }
  ms.sort((a, b) => a - b);
  console.log(
    `${name.padEnd(58)} median ${ms[ms.length >> 1]!.toFixed(1)} ms, slowest ${ms.at(-1)!.toFixed(1)} ms${goalMs === null ? '' : ` (goal ${goalMs} ms)`}`,
  );
}

const deviceId = uuidv7();
let deviceSeq = 0;
/** As this device knows it: it hears of every change. */
let seen = await app.records.revision();
const change = (id: string, label: string, patches: Patch[]): Promise<unknown> => {
  const baseRevision = seen++;
  const draft: ChangeDraft = { id: uuidv7(), jobId: id, personId: person, deviceId, deviceSeq: ++deviceSeq, baseRevision, label, patches };
  return app.changes.apply(draft);
};
const tapes = file.readings.filter((r) => r.instrument === 'tape' && r.unit === 'mm');
const tapeAgain = (i: number): Promise<unknown> => {
  const r = tapes[i % tapes.length]!;
  const value: Reading = {
    ...r,
    id: uuidv7(),
    lengthMm: r.lengthMm + (i % 3),
    typed: String(r.lengthMm + (i % 3)),
    unit: 'mm',
    at: new Date().toISOString(),
    supersedesId: null,
  };
  return change(jobId, 'Tape', [{ op: 'add', kind: 'reading', id: value.id, value: value as unknown as Record<string, unknown> }]);
};

/** Edits as they come: nine notes, then a tape. */
const edit = (i: number): Promise<unknown> => {
  const s = file.surfaces[i % file.surfaces.length]!;
  return i % 10 === 9 ? tapeAgain(i) : change(jobId, 'Note', [{ op: 'set', kind: 'surface', id: s.id, field: 'note', value: `seen ${i}` }]);
};

const revision = async () => app.records.revision();
await timed('reference: one bare statement', null, 200, revision);
const read = async (): Promise<unknown> => documentAsJson(await app.jobs.open(jobId, person, deviceId));
await timed(`opening a job of ${file.surfaces.length} panes, as JSON`, 4, 100, read);
await timed('one edit more', 10, 60, edit);
await timed(`${CHANGES} edits, one after the other (median of a hundred)`, null, CHANGES / 100, async (n) => {
  for (let i = 0; i < 100; i++) await edit(100 * n + i);
});
await timed('opening it after them', 4, 100, read);
await timed('one edit more after them', 10, 60, edit);
await timed('one tape more after them', 10, 60, tapeAgain);

// what several people do at once, over HTTP: how long each of them waits
const server = app.http.listen(0, '127.0.0.1');
await new Promise((r) => server.once('listening', r));
const { port } = server.address() as AddressInfo;
const ask = async (path: string, init: RequestInit = {}): Promise<number> => {
  const start = performance.now();
  const answer = await fetch(`http://127.0.0.1:${port}${path}`, init);
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`);
  return performance.now() - start;
};
const told = (name: string, waits: number[], goalMs: number): void => {
  waits.sort((a, b) => a - b);
  console.log(
    `${name.padEnd(58)} median ${waits[waits.length >> 1]!.toFixed(0)} ms, p99 ${waits[Math.floor(0.99 * waits.length)]!.toFixed(0)} ms (goal ${goalMs} ms)`,
  );
};
const rest = (ms: number): Promise<void> => new Promise((r) => setTimeout(r, ms));
const crowd = new Worker(new URL('./crowd.mjs', import.meta.url), { workerData: { port, jobId, person, surfaces: file.surfaces.map((s) => s.id) } });
const [{ reads, writes, firstMs }] = (await once(crowd, 'message')) as [{ reads: number[]; writes: number[]; firstMs: number }];
console.log(`${'the longest wait in the first second over HTTP'.padEnd(58)} ${firstMs.toFixed(0)} ms`);
told('50 reads a second', reads, 150);
told('50 writes a second beside them', writes, 150);

// a survey of 300 panes with eight tapes each comes in as a table
const csv = [
  'place,surface,measure,value',
  ...Array.from({ length: 300 }, (_, i) => EIGHT.map(([m, mm]) => `Floor,Pane ${i},${m},${mm + i / 10}`)).flat(),
].join('\n');
const tower = await app.jobs.create({ name: 'A tower', customer: '', units: 'mm', personId: person, deviceId: uuidv7() });
let isIn = false;
const waits: number[] = [];
const watching = (async () => {
  while (!isIn) {
    waits.push(await ask('/api/health'));
    await rest(10);
  }
})();
const wholeMs = await ask(`/api/jobs/${tower.id}/measures.csv?personId=${person}&deviceId=${uuidv7()}`, {
  method: 'POST',
  headers: { 'Content-Type': 'text/csv' },
  body: csv,
});
isIn = true;
await watching;
console.log(
  `${'2 400 readings of 300 panes come in'.padEnd(58)} ${wholeMs.toFixed(0)} ms (goal 2000 ms), the longest wait of others ${Math.max(...waits).toFixed(0)} ms (goal 200 ms)`,
);
server.close();
server.closeAllConnections();

const job = { ...file.job };
for (let n = 0; n < JOBS; n++) {
  const id = uuidv7();
  const value = { ...job, id, name: `House ${n}`, dueOn: `20${String(10 + (n % 16)).padStart(2, '0')}-0${1 + (n % 9)}-1${n % 10}` };
  const surface = { ...file.surfaces[0]!, id: uuidv7(), jobId: id, placeId: '', measuredLikeId: null };
  const place = { ...file.places[0]!, id: uuidv7(), jobId: id };
  const reading = { ...tapes[0]!, id: uuidv7(), jobId: id, surfaceId: surface.id };
  const add = (kind: 'job' | 'place' | 'surface' | 'reading', v: { id: string }): Patch => ({
    op: 'add',
    kind,
    id: v.id,
    value: v as unknown as Record<string, unknown>,
  });
  await change(id, 'Start', [add('job', value), add('place', place), add('surface', { ...surface, placeId: place.id } as never), add('reading', reading)]);
}
await timed(`the first page of ${JOBS} jobs, first time`, null, 1, async () => JSON.stringify(await app.jobs.list({ offset: 0, limit: 50 })));
await timed(`the first page of ${JOBS} jobs`, 50, 9, async () => JSON.stringify(await app.jobs.list({ offset: 0, limit: 50 })));
await open.close();
