import { closeSync, fsyncSync, openSync, renameSync, writeSync } from 'node:fs';

/** Writes a file whole or not at all, for this user’s eyes only. */
export function keep(file: string, text: string): void {
  const fresh = `${file}.new`;
  const fd = openSync(fresh, 'w', 0o600);
  try {
    writeSync(fd, text);
    fsyncSync(fd);
  } finally {
    closeSync(fd);
  }
  renameSync(fresh, file);
}
