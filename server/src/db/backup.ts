import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { allKinds, schemaOf, type Change, type RecordKind } from '@yellow-pane/contracts';
import { createEmpty, loadDump, openAsItIs, type OpenDatabase } from './database.js';
import { Journal } from './journal.js';
import { realDisk, writeDurably, type Disk } from './durable.js';
import { syncDirectory } from './sync-directory.js';
import { RecordsRepository } from './records.repository.js';

export type BackupKind = 'daily' | 'stop' | 'asked' | 'before-migration';
/** How many of each kind are kept. */
const kept: Record<BackupKind, number> = { daily: 10, stop: 3, asked: 10, 'before-migration': 3 };

export const stampOf = (now: Date): string => now.toISOString().replace(/[:.]/g, '-');

/**
 * Physical dump into `dataDir/backups`. Only when it stands there whole, read back and compared, the oldest of its kind beyond the number kept go.
 * @returns the file @throws DiskRefused: then the older ones are all still there
 */
export async function writeBackup(open: Pick<OpenDatabase, 'dump'>, dataDir: string, kind: BackupKind, now: Date, disk: Disk = realDisk): Promise<string> {
  const dir = join(dataDir, 'backups');
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  const file = join(dir, `${kind}-${stampOf(now)}.tar.gz`);
  writeDurably(file, await open.dump(), { disk });
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

export async function exportAll(records: RecordsRepository, now: Date): Promise<LogicalExport> {
  const all = {} as Record<RecordKind, unknown[]>;
  for (const kind of allKinds) all[kind] = await records.all(kind);
  return { format: 'yellow-pane export', formatVersion: 1, writtenAt: now.toISOString(), records: all, changes: await records.allChanges() };
}

/** Puts an export into an empty database. @throws Error with a sentence when it does not read */
async function importAll(records: RecordsRepository, text: string): Promise<void> {
  const read = JSON.parse(text) as LogicalExport;
  if (read.format !== 'yellow-pane export' || read.formatVersion !== 1) throw new Error('This file is no export of Yellow Pane that this version reads.');
  await records.transaction(async (tx) => {
    for (const kind of allKinds)
      for (const [i, raw] of (read.records[kind] ?? []).entries()) {
        const parsed = schemaOf(kind).safeParse(raw);
        if (!parsed.success)
          throw new Error(
            `${kind} ${i + 1} does not read: ${parsed.error.issues[0]!.path.join('.')} – ${parsed.error.issues[0]!.message}. Nothing was restored.`,
          );
        await tx.put(kind, (parsed.data as { id: string }).id, parsed.data as Record<string, unknown>);
      }
    for (const change of read.changes) await tx.addChange(change);
  });
}

/** What was brought back. */
export interface Restored {
  /** Where the old data went, or null when there was none. */
  readonly aside: string | null;
  /** Edits of the journal that the backup does not have yet: the next start brings them back. Null: the journal was put aside. */
  readonly editsToCome: number | null;
}

/**
 * Brings a backup (physical dump or logical export) back. What was there is moved aside, not deleted. The journal stays, so that the next start brings back
 * every edit that was acknowledged since the backup was made: that is what is wanted after damage.
 * @param toTheBackupAlone the state of the backup and nothing later is wanted: the journal goes aside too
 */
export async function restoreInto(
  dataDir: string,
  file: string,
  now: Date,
  { toTheBackupAlone = false, tell = (_: string): void => undefined } = {},
): Promise<Restored> {
  const bytes = readFileSync(file);
  const beside = join(dataDir, 'db.tmp');
  tell('Reading the backup …');
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
  const editsToCome = toTheBackupAlone ? null : await missingIn(beside, dataDir, tell);
  const old = readdirSync(dataDir).filter((n) => n === 'db' || (toTheBackupAlone && /^journal.*\.ndjson$/.test(n)));
  if (old.length) mkdirSync(aside, { mode: 0o700 });
  old.forEach((n) => renameSync(join(dataDir, n), join(aside, n)));
  renameSync(beside, join(dataDir, 'db'));
  syncDirectory(dataDir);
  return { aside: old.length ? aside : null, editsToCome };
}

/** How many edits of the journal a database does not have. */
async function missingIn(folder: string, dataDir: string, tell: (words: string) => void): Promise<number> {
  if (!readdirSync(dataDir).some((n) => /^journal.*\.ndjson$/.test(n))) return 0;
  tell('Looking through the journal …');
  const open = await openAsItIs(folder);
  try {
    const known = await new RecordsRepository(open.db).allChangeIds();
    const journal = new Journal(dataDir);
    const count = journal.read().changes.filter((c) => !known.has(c.id)).length;
    journal.close();
    return count;
  } finally {
    await open.close();
  }
}
