import type { Logger } from 'pino';
import type { Config } from '../config.js';
import { embeddedStore } from './embedded-store.js';
import type { Store } from './store.js';

/** The records where this bench is told to keep them. @throws Error with a sentence for whoever starts it */
export async function openStore(config: Pick<Config, 'dataDir' | 'databaseUrl'>, now: () => Date, log: Logger): Promise<Store> {
  if (config.databaseUrl === null) return embeddedStore(config.dataDir, now, log);
  const { postgresStore } = await import('./postgres-store.js');
  return postgresStore(config.databaseUrl, config.dataDir, now, log);
}
