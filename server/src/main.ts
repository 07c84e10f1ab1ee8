import { chmodSync, mkdirSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp } from './app.js';
import { setUpBench } from './bench-setup.js';
import { startWorker } from './compute/worker-pool.js';
import { readConfig } from './config.js';
import { backupsIn, stampOf } from './db/backup.js';
import { reportDangling } from './db/references.js';
import { refusedBy } from './db/durable.js';
import { openStore } from './db/open-store.js';

const HOUR_MS = 3_600_000;

/** Journal, database and photos are for this user’s eyes only, in a folder of an older version too. */
function ownerOnly(dir: string): void {
  try {
    chmodSync(dir, 0o700);
  } catch {
    // somebody else’s folder that is shared on purpose, or a file system without rights
  }
}

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = pino({ level: config.logLevel }, pino.destination({ fd: 2, sync: true }));
  const now = () => new Date();
  mkdirSync(config.dataDir, { recursive: true, mode: 0o700 });
  ownerOnly(config.dataDir);
  const store = await openStore(config, now, log);
  const here = dirname(fileURLToPath(import.meta.url));
  const compute = startWorker(new URL('./worker.js', import.meta.url));
  const app = createApp({
    db: store.db,
    journal: store.journal,
    compute,
    now,
    log,
    webDir: join(here, '..', '..', 'web', 'dist', 'browser'),
    backup: () => store.backup('asked', now()),
    photosDir: join(config.dataDir, 'photos'),
    languagesDir: join(config.dataDir, 'languages'),
    clearOut: config.databaseUrl ? null : () => store.clearOut(),
    backups: () => backupsIn(config.dataDir),
    shop: { dir: join(config.dataDir, 'shop'), securePort: config.shopPort, setUpPort: config.shopPort + 1 },
    plotter: config.plotter,
    plotterHaste: config.plotterHaste,
  });
  store.watch({
    doubt: () => app.changes.forget(),
    taken: (sentence) => {
      process.stderr.write(`${sentence}\n`);
      process.exit(1);
    },
  });
  let toldAt = Date.now();
  const replayed = await app.changes.replay((done, all) => {
    if (Date.now() - toldAt < 2000) return;
    toldAt = Date.now();
    process.stdout.write(`Bringing back edits from the journal: ${done} of ${all} …\n`);
  });
  if (replayed.count > 0) log.warn(`${replayed.count} acknowledged edits were missing from the database and came back from the journal.`);
  if (replayed.unreadableCount > 0)
    log.error(`${replayed.unreadableCount} lines of the journal do not read. They were set aside in ${replayed.unreadableFile}; all others count.`);
  if (store.isUpdated) {
    const told = await reportDangling(app.records, config.dataDir, stampOf(now()));
    if (told) log.warn(told);
  }
  if (replayed.count > 0) await app.erasing.finish();
  await setUpBench(app, config.seed);
  await app.plotter.tidyUp();

  const daily = () => store.daily(now(), () => app.changes.settled());
  const timer = setInterval(() => void daily().catch((error: unknown) => log.error({ err: error }, 'daily backup failed')), HOUR_MS);
  timer.unref();

  const server = app.http.listen(config.port, '127.0.0.1', (error) => {
    if (error) {
      const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
      fail(taken ? new Error(`Port ${config.port} is taken by another program. Set YELLOW_PANE_PORT to another one.`) : error);
      return;
    }
    const { port } = server.address() as AddressInfo;
    store.setPort(port);
    process.stdout.write(`Yellow Pane is ready: http://localhost:${port}\n`);
    void app.shop?.start().catch((e: unknown) => log.error({ err: e }, 'listening in the shop failed'));
    void daily().catch((e: unknown) => log.error({ err: e }, 'daily backup failed'));
  });
  const fail = (error: Error) => {
    process.stderr.write(`${error.message}\n`);
    void store.close().finally(() => process.exit(1));
  };

  let stopping = false;
  const stop = async () => {
    if (stopping) return;
    stopping = true;
    clearInterval(timer);
    app.plotter.close();
    await app.shop?.close();
    server.close();
    server.closeAllConnections();
    await app.changes.settled();
    await store.atStop(now());
    await store.close();
    await compute.close();
    process.exit(0);
  };
  process.on('SIGTERM', () => void stop());
  process.on('SIGINT', () => void stop());
}

main().catch((error: unknown) => {
  const disk = refusedBy(error);
  const message = disk ? disk.message : error instanceof Error ? error.message : String(error);
  process.stderr.write(`${message}\n`);
  process.exit(1);
});
