import { mkdirSync } from 'node:fs';
import { readConfig } from '../config.js';
import { writeBackup } from '../db/backup.js';
import { openInFolder } from '../db/database.js';
import { livingHolder, takeLock } from '../db/lock.js';

/** `npm run backup`: asks the running server, or takes the folder itself when none runs. */
async function main(): Promise<void> {
  const { dataDir } = readConfig(process.env);
  const holder = livingHolder(dataDir);
  if (holder?.port) {
    const answer = await fetch(`http://127.0.0.1:${holder.port}/api/backup`, { method: 'POST' });
    if (!answer.ok) throw new Error(`The running server did not write a backup (${answer.status}).`);
    process.stdout.write(`${((await answer.json()) as { file: string }).file}\n`);
    return;
  }
  mkdirSync(dataDir, { recursive: true });
  const lock = takeLock(dataDir);
  try {
    const open = await openInFolder(dataDir, async () => undefined);
    process.stdout.write(`${await writeBackup(open, dataDir, 'asked', new Date())}\n`);
    await open.close();
  } finally {
    lock.release();
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exit(1);
});
