import { existsSync, mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { readConfig } from '../config.js';
import { restoreInto } from '../db/backup.js';
import { takeLock } from '../db/lock.js';

/**
 * `npm run restore FILE`: brings a backup or an export back, and with the next start every edit of the journal since then; what was there is moved aside.
 * `-- --backup-alone` puts the journal aside too: the state of the backup and nothing later. The server must be stopped.
 */
async function main(): Promise<void> {
  const toTheBackupAlone = process.argv.includes('--backup-alone');
  const file = process.argv.slice(2).find((a) => !a.startsWith('--'));
  if (!file || !existsSync(file)) throw new Error('Say which file: npm run restore FILE (a .tar.gz from backups, or an export .json).');
  const { dataDir } = readConfig(process.env);
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
