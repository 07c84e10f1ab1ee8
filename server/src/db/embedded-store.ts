import type { Logger } from 'pino';
import { needsDaily, stampOf, writeBackup } from './backup.js';
import { clearOut, openInFolder } from './database.js';
import { Journal } from './journal.js';
import { takeLock } from './lock.js';
import type { Store } from './store.js';

/**
 * The engine that ships with Yellow Pane, in `dataDir`: it does not sync to disk by itself, so there is a journal, and a lock file keeps a second process out.
 * @throws FolderInUse
 */
export async function embeddedStore(dataDir: string, now: () => Date, log: Pick<Logger, 'error'>): Promise<Store> {
  const lock = takeLock(dataDir);
  try {
    let isUpdated = false;
    const open = await openInFolder(dataDir, async (old) => {
      isUpdated = true;
      await writeBackup(old, dataDir, 'before-migration', now());
    });
    const journal = new Journal(dataDir);
    return {
      db: open.db,
      journal,
      isUpdated,
      setPort: lock.setPort,
      backup: (kind, at) => writeBackup(open, dataDir, kind, at),
      daily: async (at, settled) => {
        if (!needsDaily(dataDir, at)) return;
        await settled();
        await writeBackup(open, dataDir, 'daily', at);
        journal.rotate(stampOf(at));
      },
      atStop: async (at) => {
        // a full disk must not keep the bench from stopping; the older backups are all still there
        await writeBackup(open, dataDir, 'stop', at).catch((error: unknown) => log.error({ err: error }, 'no backup on this stop'));
      },
      clearOut: () => clearOut(open.db),
      watch: () => undefined,
      close: async () => {
        await open.close();
        journal.close();
        lock.release();
      },
    };
  } catch (error) {
    lock.release();
    throw error;
  }
}
