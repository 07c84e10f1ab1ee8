import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { readConfig } from '../config.js';
import { exportIn, importAll, restoreInto } from '../db/backup.js';
import { takeLock } from '../db/lock.js';
import { openOnServer, placeOf } from '../db/postgres-store.js';
import { RecordsRepository } from '../db/records.repository.js';
import { plainLog } from './plain-log.js';

/** An export goes into an empty database: nothing that is anywhere is overwritten. */
async function restoreOnServer(url: string, file: string): Promise<void> {
  const text = exportIn(readFileSync(file));
  if (text === null)
    throw new Error(
      'This is a dump of the engine in the folder. Restore it without YELLOW_PANE_DATABASE_URL, then bring it over with npm run move -- --to URL.',
    );
  const open = await openOnServer(url, plainLog, async () => undefined);
  try {
    const records = new RecordsRepository(open.db);
    if ((await records.revision()) > 0)
      throw new Error(`There are records in ${placeOf(url)} already. Make an empty database, and name it in YELLOW_PANE_DATABASE_URL.`);
    await importAll(records, text);
    process.stdout.write(`Restored into ${placeOf(url)}, as it was when the export was made. Photos are not in it: they are files in the data folder.\n`);
  } finally {
    await open.close();
  }
}

/**
 * `npm run restore FILE`: brings a backup or an export back, and with the next start every edit of the journal since then; what was there is moved aside.
 * `-- --backup-alone` puts the journal aside too: the state of the backup and nothing later. The server must be stopped.
 */
async function main(): Promise<void> {
  const toTheBackupAlone = process.argv.includes('--backup-alone');
  const file = process.argv.slice(2).find((a) => !a.startsWith('--'));
  if (!file || !existsSync(file)) throw new Error('Say which file: npm run restore FILE (a .tar.gz from backups, or an export .json).');
  const { dataDir, databaseUrl } = readConfig(process.env);
  if (databaseUrl !== null) return restoreOnServer(databaseUrl, resolve(file));
  mkdirSync(dataDir, { recursive: true });
  const lock = takeLock(dataDir);
  try {
    const { aside, editsToCome } = await restoreInto(dataDir, resolve(file), new Date(), {
      toTheBackupAlone,
      tell: (words) => process.stdout.write(`${words}\n`),
    });
    const edits =
      editsToCome === null
        ? 'The journal was put aside: edits made after this backup are not in it.'
        : editsToCome === 0
          ? 'The journal holds no later edits.'
          : `${editsToCome} edits made after this backup are in the journal: the next start brings them back.`;
    process.stdout.write(`Restored. ${edits}${aside ? ` What was there before is in ${aside}.` : ''}\n`);
  } finally {
    lock.release();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(1);
});
