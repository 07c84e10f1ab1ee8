import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip, gunzipSync } from 'node:zlib';
import { allKinds, schemaOf, upgradedPatch, upgradedRecord, type Change, type RecordKind } from '@yellow-pane/contracts';
import { breathe } from '../breathe.js';
import { createEmpty, loadDump, openAsItIs, type OpenDatabase } from './database.js';
import { Journal } from './journal.js';
import { DiskRefused, realDisk, refusedBy, writeDurably, type Disk } from './durable.js';
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
  dropOldest(dir, kind);
  return file;
}

/** Names of the backups that are there, oldest kind first. */
export function backupsIn(dataDir: string): string[] {
  const dir = join(dataDir, 'backups');
  return existsSync(dir)
    ? readdirSync(dir)
        .filter((n) => /\.(tar|json)\.gz$/.test(n))
        .sort()
    : [];
}

/** True when no daily backup of this day (UTC) is there yet. */
export function needsDaily(dataDir: string, now: Date): boolean {
  const dir = join(dataDir, 'backups');
  const day = now.toISOString().slice(0, 10);
  return !existsSync(dir) || !readdirSync(dir).some((n) => n.startsWith(`daily-${day}`));
}

/** All records and their history as JSON, independent of the database that holds them. */
interface LogicalExport {
  readonly format: 'yellow-pane export';
  readonly formatVersion: 1;
  readonly writtenAt: string;
  readonly records: Record<RecordKind, unknown[]>;
  readonly changes: Change[];
}

/** So many records are read at once for an export. @source house rule: a few megabytes */
const READ_AT_ONCE = 500;

/** An export, piece by piece, so that no more than a page of it is in memory; on a server nobody who works meanwhile waits for it. */
async function* exportPieces(records: RecordsRepository, now: Date): AsyncGenerator<string> {
  yield `{"format":"yellow-pane export","formatVersion":1,"writtenAt":${JSON.stringify(now.toISOString())},"records":{`;
  for (const [n, kind] of allKinds.entries()) {
    yield `${n ? ',' : ''}${JSON.stringify(kind)}:[`;
    // what was written before this kind of record was known has none of it
    if (await records.hasTable(kind)) {
      const pages = pagesOf((last: { id: string } | null) => records.storedAfter(kind, last?.id ?? null, READ_AT_ONCE), READ_AT_ONCE);
      yield* joined(pages, (r) => JSON.stringify(r.body));
    }
    yield ']';
  }
  yield '},"changes":[';
  yield* joined(
    pagesOf((last: Change | null) => records.changesAfterAtMost(last?.revision ?? 0, READ_AT_ONCE), READ_AT_ONCE),
    (c) => JSON.stringify(c),
  );
  yield ']}';
}

/** Page after page until one is not full. */
export async function* pagesOf<T>(read: (last: T | null) => Promise<T[]>, size: number): AsyncGenerator<T[]> {
  for (let last: T | null = null; ;) {
    const page: T[] = await read(last);
    if (page.length) yield page;
    if (page.length < size) return;
    last = page.at(-1)!;
    await breathe();
  }
}

async function* joined<T>(pages: AsyncIterable<T[]>, textOf: (row: T) => string): AsyncGenerator<string> {
  let isFirst = true;
  for await (const page of pages) {
    yield (isFirst ? '' : ',') + page.map(textOf).join();
    isFirst = false;
  }
}

/** All records and their history as the text of an export. */
export function exportAll(records: RecordsRepository, now: Date): Promise<string> {
  return records.atOneMoment(async (tx) => {
    const pieces: string[] = [];
    for await (const piece of exportPieces(tx, now)) pieces.push(piece);
    return pieces.join('');
  });
}

/**
 * An export, packed, into `dataDir/backups`, read back and compared before the oldest of its kind go.
 * @returns the file @throws DiskRefused
 */
export async function writeExport(records: RecordsRepository, dataDir: string, kind: BackupKind, now: Date): Promise<string> {
  const dir = join(dataDir, 'backups');
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  const file = join(dir, `${kind}-${stampOf(now)}.json.gz`);
  const beside = `${file}.tmp`;
  const written = createHash('sha256');
  try {
    await records.atOneMoment(async (tx) => {
      const told = async function* () {
        for await (const piece of exportPieces(tx, now)) {
          written.update(piece);
          yield piece;
        }
      };
      await pipeline(told, createGzip(), createWriteStream(beside, { mode: 0o600, flush: true }));
    });
    const back = createHash('sha256');
    await pipeline(createReadStream(beside), createGunzip(), back);
    if (back.digest('hex') !== written.digest('hex')) throw new DiskRefused(false, new Error('The backup does not read back as it was written.'));
  } catch (error) {
    rmSync(beside, { force: true });
    throw refusedBy(error) ?? error;
  }
  renameSync(beside, file);
  syncDirectory(dir);
  dropOldest(dir, kind);
  return file;
}

/** Beyond the number kept of a kind the oldest go. */
function dropOldest(dir: string, kind: BackupKind): void {
  const old = readdirSync(dir)
    .filter((n) => n.startsWith(`${kind}-`) && /\.(tar|json)\.gz$/.test(n))
    .sort();
  old.slice(0, Math.max(0, old.length - kept[kind])).forEach((n) => rmSync(join(dir, n)));
}

/** Puts an export into an empty database. @throws Error with a sentence when it does not read */
export async function importAll(records: RecordsRepository, text: string): Promise<void> {
  const read = JSON.parse(text) as LogicalExport;
  if (read.format !== 'yellow-pane export' || read.formatVersion !== 1) throw new Error('This file is no export of Yellow Pane that this version reads.');
  await records.transaction(async (tx) => {
    for (const kind of allKinds)
      for (const [i, raw] of (read.records[kind] ?? []).entries()) {
        const parsed = schemaOf(kind).safeParse(upgradedRecord(kind, raw));
        if (!parsed.success)
          throw new Error(
            `${kind} ${i + 1} does not read: ${parsed.error.issues[0]!.path.join('.')} – ${parsed.error.issues[0]!.message}. Nothing was restored.`,
          );
        await tx.put(kind, (parsed.data as { id: string }).id, parsed.data as Record<string, unknown>);
      }
    for (const change of read.changes) await tx.addChange({ ...change, patches: change.patches.map(upgradedPatch) });
  });
}

/** The text of an export, packed or not; null: the file is a dump of the embedded engine, or something else. */
export function exportIn(bytes: Buffer): string | null {
  const begins = (b: Uint8Array): boolean => b[0] === 0x7b;
  if (begins(bytes)) return bytes.toString('utf8');
  // @source RFC 1952: a gzip file begins with 1f 8b
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return null;
  const text = gunzipSync(bytes);
  return begins(text) ? text.toString('utf8') : null;
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
  const text = exportIn(bytes);
  if (text !== null) {
    const open = await createEmpty(beside);
    try {
      await importAll(new RecordsRepository(open.db), text);
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
