import { existsSync, fsyncSync, mkdirSync, openSync, closeSync, readdirSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { recordSchemas, type Change, type RecordKind } from '@yellow-pane/contracts';
import { createEmpty, loadDump, type OpenDatabase } from './database.js';
import { syncDirectory } from './journal.js';
import { RecordsRepository } from './records.repository.js';

export type BackupKind = 'daily' | 'stop' | 'asked' | 'before-migration';
/** How many of each kind are kept; asked ones are the person's own. */
const kept: Record<BackupKind, number> = { daily: 10, stop: 3, asked: Infinity, 'before-migration': 3 };

export const stampOf = (now: Date): string => now.toISOString().replace(/[:.]/g, '-');

/** Writes a file whole or not at all. */
function writeDurably(file: string, bytes: Uint8Array | string): void {
  const handle = openSync(`${file}.part`, 'w');
  if (typeof bytes === 'string') writeSync(handle, bytes);
  else writeSync(handle, bytes);
  fsyncSync(handle);
  closeSync(handle);
  renameSync(`${file}.part`, file);
}

/** Physical dump into `dataDir/backups`; the oldest of its kind beyond the number kept go. @returns the file */
export async function writeBackup(open: OpenDatabase, dataDir: string, kind: BackupKind, now: Date): Promise<string> {
  const dir = join(dataDir, 'backups');
  mkdirSync(dir, { recursive: true });
  const file = join(dir, `${kind}-${stampOf(now)}.tar.gz`);
  writeDurably(file, await open.dump());
  syncDirectory(dir);
  const old = readdirSync(dir)
    .filter((n) => n.startsWith(`${kind}-`) && n.endsWith('.tar.gz'))
    .sort();
  old.slice(0, Math.max(0, old.length - kept[kind])).forEach((n) => rmSync(join(dir, n)));
  return file;
}

/** True when no daily backup of this day (UTC) is there yet. */
export function needsDaily(dataDir: string, now: Date): boolean {
  const dir = join(dataDir, 'backups');
  const day = now.toISOString().slice(0, 10);
  return !existsSync(dir) || !readdirSync(dir).some((n) => n.startsWith(`daily-${day}`));
}

/** All records and their history as JSON, independent of the database that holds them. */
export interface LogicalExport {
  readonly format: 'yellow-pane export';
  readonly formatVersion: 1;
  readonly writtenAt: string;
  readonly records: Record<RecordKind, unknown[]>;
  readonly changes: Change[];
}

const kinds = Object.keys(recordSchemas) as RecordKind[];

export async function exportAll(records: RecordsRepository, now: Date): Promise<LogicalExport> {
  const all = {} as Record<RecordKind, unknown[]>;
  for (const kind of kinds) all[kind] = await records.all(kind);
  return { format: 'yellow-pane export', formatVersion: 1, writtenAt: now.toISOString(), records: all, changes: await records.allChanges() };
}

/** Puts an export into an empty database. @throws Error with a sentence when it does not read */
export async function importAll(records: RecordsRepository, text: string): Promise<void> {
  const read = JSON.parse(text) as LogicalExport;
  if (read.format !== 'yellow-pane export' || read.formatVersion !== 1) throw new Error('This file is no export of Yellow Pane that this version reads.');
  await records.transaction(async (tx) => {
    for (const kind of kinds)
      for (const [i, raw] of (read.records[kind] ?? []).entries()) {
        const parsed = recordSchemas[kind].safeParse(raw);
        if (!parsed.success)
          throw new Error(
            `${kind} ${i + 1} does not read: ${parsed.error.issues[0]!.path.join('.')} – ${parsed.error.issues[0]!.message}. Nothing was restored.`,
          );
        await tx.put(kind, (parsed.data as { id: string }).id, parsed.data as Record<string, unknown>);
      }
    for (const change of read.changes) await tx.addChange(change);
  });
}

/**
 * Brings a backup (physical dump or logical export) back. What was there is moved aside, not deleted, and so is the
 * journal, whose later edits would otherwise be replayed into the restored state. The caller holds the lock.
 * @returns where the old data went, or null when there was none
 */
export async function restoreInto(dataDir: string, file: string, now: Date): Promise<string | null> {
  const bytes = readFileSync(file);
  const beside = join(dataDir, 'db.tmp');
  if (bytes[0] === 0x7b) {
    const open = await createEmpty(beside);
    try {
      await importAll(new RecordsRepository(open.db), bytes.toString('utf8'));
    } finally {
      await open.close();
    }
  } else {
    await loadDump(beside, bytes);
  }
  const aside = join(dataDir, `before-restore-${stampOf(now)}`);
  const old = readdirSync(dataDir).filter((n) => n === 'db' || /^journal.*\.ndjson$/.test(n));
  if (old.length) mkdirSync(aside);
  old.forEach((n) => renameSync(join(dataDir, n), join(aside, n)));
  renameSync(beside, join(dataDir, 'db'));
  syncDirectory(dataDir);
  return old.length ? aside : null;
}
