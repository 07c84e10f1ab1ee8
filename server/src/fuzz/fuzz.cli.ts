import { existsSync } from 'node:fs';
import { pino } from 'pino';
import { demoId, demoPersons } from '@yellow-pane/demo';
import { createApp } from '../app.js';
import { setUpBench } from '../bench-setup.js';
import { inPlace } from '../compute/runners.js';
import { startWorker } from '../compute/worker-pool.js';
import { openInMemory } from '../db/database.js';
import { examplesFor } from './examples.js';
import { fuzz } from './fuzz.js';

/** `npm run fuzz -- 20000 7`: so many requests from that seed against a bench in memory, its computations in a worker where it is built. */
async function main(): Promise<void> {
  const [count, seed] = [Number(process.argv[2] ?? 2000), Number(process.argv[3] ?? 1)];
  const worker = new URL('../../dist/worker.js', import.meta.url);
  const compute = existsSync(worker) ? startWorker(worker) : inPlace;
  const open = await openInMemory();
  const app = createApp({ db: open.db, journal: null, compute, now: () => new Date(), log: pino({ level: 'silent' }), webDir: null, backup: async () => 'none', requestsIn10s: 1e9 }); // prettier-ignore
  await setUpBench(app, 'demo');
  const doc = await app.jobs.open(demoId(100));
  const ids = [100, 101, 102].map(demoId).concat(demoPersons.map((p) => p.id), doc.firm.id, doc.surfaces.slice(0, 20).map((s) => s.id), doc.films.map((f) => f.id), doc.rolls.map((r) => r.id)); // prettier-ignore
  const result = await fuzz(app, ids, await examplesFor(app, demoId(101), demoId(102)), `/api/jobs/${demoId(100)}/run-sheet.pdf`, count, seed, (n) =>
    process.stdout.write(`${n} of ${count}\n`),
  );
  process.stdout.write(
    `${JSON.stringify(result.byStatus)}, slowest ${result.slowestCpuMs.toFixed(0)} ms of the processor, the heaviest proper question ${result.heaviestCpuMs.toFixed(0)} ms\n`,
  );
  for (const f of result.findings.slice(0, 50)) process.stdout.write(`${f.what} (${f.status}, ${f.cpuMs.toFixed(0)} ms): ${f.call}\n  ${f.sent}\n`);
  process.stdout.write(`${result.count - result.findings.length} passed, ${result.findings.length} failed\n`);
  await compute.close();
  await open.close();
  process.exit(result.findings.length ? 1 : 0);
}

void main();
