import { mkdirSync } from 'node:fs';
import { readConfig } from '../config.js';
import { writeExport } from '../db/backup.js';
import { embeddedStore } from '../db/embedded-store.js';
import { livingHolder } from '../db/lock.js';
import { readOnServer } from '../db/postgres-store.js';
import { RecordsRepository } from '../db/records.repository.js';
import { plainLog } from './plain-log.js';

/** `npm run backup`: asks the running server, or takes the folder itself when none runs. */
async function main(): Promise<void> {
  const config = readConfig(process.env);
  const holder = config.databaseUrl === null ? livingHolder(config.dataDir) : null;
  if (holder?.port) {
    const answer = await fetch(`http://127.0.0.1:${holder.port}/api/backup`, { method: 'POST' });
    if (!answer.ok) throw new Error(`The running server did not write a backup (${answer.status}).`);
    process.stdout.write(`${((await answer.json()) as { file: string }).file}\n`);
    return;
  }
  mkdirSync(config.dataDir, { recursive: true });
  const now = new Date();
  if (config.databaseUrl !== null) {
    // a server answers several at once: nobody has to stop for it
    const reader = await readOnServer(config.databaseUrl);
    process.stdout.write(`${await writeExport(new RecordsRepository(reader.db), config.dataDir, 'asked', now)}\n`);
    return reader.close();
  }
  const store = await embeddedStore(config.dataDir, () => now, plainLog);
  try {
    process.stdout.write(`${await store.backup('asked', now)}\n`);
  } finally {
    await store.close();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(1);
});
