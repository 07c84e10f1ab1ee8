import { closeSync, fsyncSync, openSync } from 'node:fs';

/** Makes a new or renamed file name itself durable. Not possible on every system, and then not needed. */
export function syncDirectory(dir: string): void {
  try {
    const handle = openSync(dir, 'r');
    fsyncSync(handle);
    closeSync(handle);
  } catch {
    // Windows cannot open a folder; its file system journals names
  }
}
