import { closeSync, fsyncSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import { dirname } from 'node:path';
import { syncDirectory } from './sync-directory.js';

/** What is asked of a disk. Tests give one that runs full, writes half, or gives back something else. */
export interface Disk {
  /** @returns how many bytes went in: fewer than asked where the disk runs full */
  write(handle: number, bytes: Uint8Array, from: number): number;
  sync(handle: number): void;
  read(file: string): Uint8Array;
}

export const realDisk: Disk = {
  write: (handle, bytes, from) => writeSync(handle, bytes, from, bytes.length - from),
  sync: (handle) => fsyncSync(handle),
  read: (file) => readFileSync(file),
};

/** The disk did not take what has to be on it before anything is acknowledged. */
export class DiskRefused extends Error {
  constructor(
    readonly isReadOnly: boolean,
    cause: unknown,
  ) {
    super(
      isReadOnly
        ? 'The data folder can only be read. Make it writable again; nothing was changed.'
        : 'The disk is full. Make room on it; nothing was changed, and what you typed is still on the screen.',
      { cause },
    );
  }
}

const READ_ONLY = new Set(['EROFS', 'EACCES', 'EPERM']);

/** What a failing write means; null: something else is wrong. */
export function refusedBy(error: unknown): DiskRefused | null {
  if (error instanceof DiskRefused) return error;
  if (!(error instanceof Error)) return null;
  const code = (error as NodeJS.ErrnoException).code ?? '';
  // the database says it in its own words, wrapped. @source PostgreSQL error codes: 53100 disk_full, 25006 read_only_sql_transaction
  if (code === '53100' || /no space left on device/i.test(error.message)) return new DiskRefused(false, error);
  if (code === '25006' || /read-only file system/i.test(error.message)) return new DiskRefused(true, error);
  if (READ_ONLY.has(code)) return new DiskRefused(true, error);
  if (['ENOSPC', 'EDQUOT', 'EFBIG', 'EIO'].includes(code)) return new DiskRefused(false, error);
  return error.cause === undefined ? null : refusedBy(error.cause);
}

/** Every byte, or it throws: one call may take only a part. */
export function writeAll(disk: Disk, handle: number, bytes: Uint8Array): void {
  for (let done = 0; done < bytes.length;) {
    const n = disk.write(handle, bytes, done);
    if (!(n > 0)) throw new DiskRefused(false, new Error(`${done} of ${bytes.length} bytes went in`));
    done += n;
  }
}

const same = (a: Uint8Array, b: Uint8Array): boolean => a.length === b.length && Buffer.compare(a, b) === 0;

/**
 * Writes a file whole and on the disk, or not at all: beside it, read back and compared, then renamed into place. What stood there before stays until then.
 * @throws DiskRefused when the disk takes or gives back anything else than what was written
 */
export function writeDurably(
  file: string,
  content: Uint8Array | string,
  { disk = realDisk, mode = 0o600 }: { readonly disk?: Disk; readonly mode?: number } = {},
): void {
  const bytes = typeof content === 'string' ? Buffer.from(content) : content;
  const beside = `${file}.part`;
  try {
    const handle = openSync(beside, 'w', mode);
    try {
      writeAll(disk, handle, bytes);
      disk.sync(handle);
    } finally {
      closeSync(handle);
    }
    if (!same(disk.read(beside), bytes)) throw new DiskRefused(false, new Error(`${beside} reads back as something else`));
    renameSync(beside, file);
  } catch (error) {
    try {
      rmSync(beside, { force: true });
    } catch {
      // a folder that can only be read keeps it; the name says that it is no whole file
    }
    throw refusedBy(error) ?? error;
  }
  syncDirectory(dirname(file));
}
