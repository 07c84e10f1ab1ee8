import { readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { BenchServer } from './server.js';

/**
 * The demo's first start, which lays out database and jobs, once for all stories: a story that begins with the demo gets a copy of that folder and
 * starts the real server on it, as on any later morning. Those that begin otherwise make their own.
 */
export default async function makeTemplate(): Promise<() => void> {
  const first = new BenchServer();
  await first.start();
  await first.stop();
  // what a stop leaves beside the record
  for (const name of readdirSync(first.dataDir)) if (name === 'backups') rmSync(join(first.dataDir, name), { recursive: true });
  process.env['YELLOW_PANE_TEMPLATE'] = first.dataDir;
  return () => rmSync(first.dataDir, { recursive: true, force: true });
}
