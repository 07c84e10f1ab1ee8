import { existsSync, mkdirSync } from 'node:fs';
import { resolve } from 'node:path';
import { readConfig } from '../config.js';
import { restoreInto } from '../db/backup.js';
import { takeLock } from '../db/lock.js';

/** `npm run restore FILE`: brings a backup or an export back; what was there is moved aside. The server must be stopped. */
async function main(): Promise<void> {
  const file = process.argv[2];
  if (!file || !existsSync(file)) throw new Error('Say which file: npm run restore FILE (a .tar.gz from backups, or an export .json).');
  const { dataDir } = readConfig(process.env);
  mkdirSync(dataDir, { recursive: true });
  const lock = takeLock(dataDir);
  try {
    const aside = await restoreInto(dataDir, resolve(file), new Date());
    process.stdout.write(`Restored. ${aside ? `What was there before is in ${aside}.` : ''}\n`);
  } finally {
    lock.release();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(1);
});
