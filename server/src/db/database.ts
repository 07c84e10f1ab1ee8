import { cpSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { syncDirectory } from './sync-directory.js';
import { movedAway } from './tables.js';

interface RowsOf<T> {
  readonly rows: T[];
}
interface Rows extends PgQueryResultHKT {
  readonly type: RowsOf<this['row']>;
}
/** A connection or transaction of either engine: both answer a bare statement with its rows. */
export type Database = PgDatabase<Rows>;

export interface OpenDatabase {
  readonly db: Database;
  /** Physical dump (gzip tar; a plain one is larger and sooner made). */
  dump(isPlain?: boolean): Promise<Buffer>;
  close(): Promise<void>;
}

const here = dirname(fileURLToPath(import.meta.url));
/** Beside this file in the sources, beside the bundle when built. */
export const migrationsFolder = [join(here, 'migrations'), join(here, 'db', 'migrations')].find((f) => existsSync(f)) ?? join(here, 'migrations');

/** An empty bench as the build made it; running from the sources there is none. */
const emptyBench = join(here, 'empty-bench');

const wrap = (client: PGlite): OpenDatabase => ({
  db: drizzle(client) as unknown as Database,
  dump: async (isPlain = false) => Buffer.from(await (await client.dumpDataDir(isPlain ? 'none' : 'gzip')).arrayBuffer()),
  close: () => client.close(),
});

/** For tests: lives in memory, or starts from a dump. */
export async function openInMemory(dump?: Buffer): Promise<OpenDatabase> {
  const client = await PGlite.create(dump ? { loadDataDir: new Blob([new Uint8Array(dump)]) } : {});
  await migrate(drizzle(client), { migrationsFolder });
  return wrap(client);
}

const migrationCount = (): number =>
  (JSON.parse(readFileSync(join(migrationsFolder, 'meta', '_journal.json'), 'utf8')) as { entries: unknown[] }).entries.length;

async function appliedMigrations(db: Database): Promise<number> {
  const found = await db.execute<{ name: string | null }>(sql`select to_regclass('drizzle.__drizzle_migrations')::text as name`);
  if (found.rows[0]!.name === null) return 0;
  const rows = await db.execute<{ n: number }>(sql`select count(*)::int as n from drizzle.__drizzle_migrations`);
  return rows.rows[0]!.n;
}

/**
 * How the schema of a database stands to this version's.
 * @param where the records are, for the sentence @throws Error when they were written by a newer version
 */
export async function schemaState(db: Database, where: string): Promise<'empty' | 'old' | 'current'> {
  const applied = await appliedMigrations(db);
  if (applied > migrationCount()) throw new Error(`The data in ${where} was written by a newer Yellow Pane. Update this one, or use another place.`);
  if (applied === 0) return 'empty';
  return applied < migrationCount() ? 'old' : 'current';
}

/**
 * Opens the database in `dataDir/db`. A first one is made beside and renamed into place when it is whole, so that a crash
 * in the middle leaves nothing that looks like a database.
 * @param beforeMigration gets the old database to dump it when the schema is about to change
 */
export async function openInFolder(dataDir: string, beforeMigration: (old: OpenDatabase) => Promise<void>): Promise<OpenDatabase> {
  mkdirSync(dataDir, { recursive: true });
  const folder = join(dataDir, 'db');
  const beside = join(dataDir, 'db.tmp');
  rmSync(beside, { recursive: true, force: true });
  if (!existsSync(folder)) {
    if (existsSync(emptyBench)) cpSync(emptyBench, beside, { recursive: true });
    else {
      const first = await PGlite.create(beside);
      await migrate(drizzle(first), { migrationsFolder });
      await first.close();
    }
    renameSync(beside, folder);
    syncDirectory(dataDir);
  }
  let client: PGlite;
  try {
    client = await PGlite.create(folder);
  } catch (error) {
    throw new Error(
      `The database in ${folder} does not open (${(error as Error).message}). The newest backup and every edit that was acknowledged since then come back with: npm run restore ${join(dataDir, 'backups')}/FILE (nothing is thrown away: what is there now is put aside)`,
      { cause: error },
    );
  }
  const open = wrap(client);
  try {
    if ((await schemaState(open.db, dataDir)) !== 'current') {
      await beforeMigration(open);
      await migrate(drizzle(client), { migrationsFolder });
    }
    await refuseMovedAway(open.db, dataDir);
  } catch (error) {
    await client.close();
    throw error;
  }
  return open;
}

/** @throws Error when the records went on somewhere else: whoever wrote here too would make two histories of one */
export async function refuseMovedAway(db: Database, where: string): Promise<void> {
  const [moved] = await db.select().from(movedAway);
  if (moved)
    throw new Error(
      `The records of ${where} were moved to ${moved.to} on ${moved.at.slice(0, 10)} and go on there. Work with them there, or bring them back from there with npm run move (docs/operations.md).`,
    );
}

/** Tables in which something personal may stand. */
const PERSONAL = ['lay_entry', 'job', 'quote', 'change'];

/**
 * Takes off the disk what rows were before: the tables are written anew, and the log of the engine is begun anew and its old files deleted instead of used
 * again, so that no dump to come carries them along. It takes a moment; nobody else writes meanwhile. @source PostgreSQL: VACUUM FULL, wal_recycle, CHECKPOINT
 */
export async function clearOut(db: Database): Promise<void> {
  for (const table of PERSONAL) await db.execute(sql.raw(`vacuum full ${table}`));
  await db.execute(sql`set wal_recycle = off`);
  await db.execute(sql`select pg_switch_wal()`);
  await db.execute(sql`checkpoint`);
  await db.execute(sql`reset wal_recycle`);
}

/** Loads a physical dump into a new folder beside, to be renamed into place by the caller. */
export async function loadDump(folder: string, dump: Buffer): Promise<void> {
  rmSync(folder, { recursive: true, force: true });
  const client = await PGlite.create({ dataDir: folder, loadDataDir: new Blob([new Uint8Array(dump)]) });
  await client.query('select 1');
  await client.close();
}

/** A database as it stands, without bringing it up to date. */
export const openAsItIs = async (folder: string): Promise<OpenDatabase> => wrap(await PGlite.create(folder));

/** A new, empty, migrated database in `folder`. */
export async function createEmpty(folder: string): Promise<OpenDatabase> {
  rmSync(folder, { recursive: true, force: true });
  const client = await PGlite.create(folder);
  await migrate(drizzle(client), { migrationsFolder });
  return wrap(client);
}
