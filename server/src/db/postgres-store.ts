import { Socket } from 'node:net';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Client, Pool, type ClientConfig, type PoolClient } from 'pg';
import type { Logger } from 'pino';
import { needsDaily, writeExport } from './backup.js';
import { DatabaseAway, isOutOfReach } from './database-away.js';
import { migrationsFolder, refuseMovedAway, schemaState, type Database } from './database.js';
import { RecordsRepository } from './records.repository.js';
import type { Store, StoreWatcher } from './store.js';

/** The oldest server that the schema and its statements are tested on. */
const OLDEST = 15;
/** One process at a time works on the records of a database: it holds this advisory lock. @source house rule: “YPan” as a number */
const LOCK = 0x5950616e;
/** Connections that ask at once; one more holds the lock. @source house rule: more than there are threads to answer */
const CONNECTIONS = 8;
/** A server that says nothing for so long, to a question or to the pulse of the lock, is gone: a pulled cable says nothing either. @source house rule: longer than any statement takes */
const SILENCE_MS = 60_000;
/** The pulse comes so much sooner than that. */
const PULSES_IN_SILENCE = 4;
/** At a start the database may still be coming up. @source house rule */
const PATIENCE_MS = 20_000;
const AGAIN_MS = 1000;
/** A server may take a moment to notice that the process before this one is gone. @source house rule */
const HELD_STILL_MS = 2000;

/** Where the records are, in words without a password. */
export function placeOf(url: string): string {
  const { hostname, port, pathname } = new URL(url);
  return `the database ${decodeURIComponent(pathname.slice(1))} at ${hostname || 'localhost'}:${port || '5432'}`;
}

const settings = (url: string, silenceMs: number): ClientConfig => ({
  connectionString: url,
  application_name: 'yellow-pane',
  connectionTimeoutMillis: 10_000,
  // a commit is answered when it is on the disk, whatever the server’s default; times are told in one zone
  // and a bench whose machine lost its power holds its lock for half a minute, not for hours
  options: '-c synchronous_commit=on -c timezone=UTC -c tcp_keepalives_idle=15 -c tcp_keepalives_interval=5 -c tcp_keepalives_count=3',
  stream: () => {
    const socket = new Socket();
    socket.setTimeout(silenceMs, () => socket.destroy(new DatabaseAway(new Error(`${silenceMs / 1000} s of silence`))));
    return socket;
  },
});

/** Whatever keeps a connection from being made, the database is out of reach. */
class Connections extends Pool {
  override connect(): Promise<PoolClient>;
  override connect(callback: (err: Error | undefined, client: PoolClient | undefined, done: (release?: unknown) => void) => void): void;
  override connect(callback?: (err: Error | undefined, client: PoolClient | undefined, done: (release?: unknown) => void) => void): Promise<PoolClient> | void {
    if (callback) return super.connect((error, client, done) => callback(error && new DatabaseAway(error), client, done));
    return super.connect().catch((error: unknown) => {
      throw new DatabaseAway(error);
    });
  }
}

const rest = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** @throws Error with a sentence when nobody answers for a while, or the server turns this user away */
async function connected(url: string, silenceMs = SILENCE_MS): Promise<Client> {
  const until = Date.now() + PATIENCE_MS;
  for (;;) {
    const client = new Client(settings(url, silenceMs));
    client.on('error', () => undefined);
    try {
      await client.connect();
      return client;
    } catch (error) {
      await client.end().catch(() => undefined);
      if (isOutOfReach(error) && Date.now() < until) {
        await rest(AGAIN_MS);
        continue;
      }
      const why = (error as Error).message || String((error as NodeJS.ErrnoException).code);
      throw new Error(`${upper(placeOf(url))} does not let Yellow Pane in (${why}). Start it, or mend YELLOW_PANE_DATABASE_URL.`, { cause: error });
    }
  }
}
const upper = (words: string): string => words[0]!.toUpperCase() + words.slice(1);

/** What a server must be so that nothing is lost on it; what only its operator can weigh is told. @throws Error with a sentence */
async function checkServer(client: Client, where: string, log: Pick<Logger, 'warn'>): Promise<void> {
  const { rows } = await client.query<{ version: number; release: string; encoding: string; copying: boolean; fsync: string; pages: string }>(
    `select current_setting('server_version_num')::int as version, current_setting('server_version') as release, current_setting('server_encoding') as encoding,
       pg_is_in_recovery() as copying, current_setting('fsync') as fsync, current_setting('full_page_writes') as pages`,
  );
  const is = rows[0]!;
  if (is.version < OLDEST * 10_000) throw new Error(`${upper(where)} is PostgreSQL ${is.release}. Yellow Pane needs ${OLDEST} or later.`);
  if (is.encoding !== 'UTF8')
    throw new Error(`${upper(where)} keeps texts as ${is.encoding}. Make one that keeps them as UTF-8 (createdb -E UTF8 -T template0 NAME) and use that.`);
  if (is.copying) throw new Error(`${upper(where)} follows another server and can only be read. Use the one that it follows.`);
  if (is.fsync !== 'on' || is.pages !== 'on')
    log.warn(`${upper(where)} does not sync to disk (fsync ${is.fsync}, full_page_writes ${is.pages}): a power cut can lose work that was told to be saved.`);
}

/** @returns whether this process has the records for itself now */
async function takeAdvisoryLock(client: Client): Promise<boolean> {
  const { rows } = await client.query<{ taken: boolean }>('select pg_try_advisory_lock($1) as taken', [LOCK]);
  return rows[0]!.taken;
}

/** Who holds the lock, as far as the server lets this user see. */
async function holderOf(client: Client): Promise<string> {
  const { rows } = await client.query<{ host: string | null; app: string | null }>(
    `select host(a.client_addr) as host, a.application_name as app from pg_locks l left join pg_stat_activity a on a.pid = l.pid
     where l.locktype = 'advisory' and l.objid = $1 and l.classid = 0 and l.granted and l.database = (select oid from pg_database where datname = current_database())`,
    [LOCK],
  );
  const port = /port (\d+)/.exec(rows[0]?.app ?? '')?.[1];
  return rows[0]?.host ? ` (on ${rows[0].host}${port ? `, port ${port}` : ''})` : '';
}

const inUse = (where: string, holder: string): string =>
  `Another Yellow Pane${holder} is already working with ${where}. Use that one, stop it first, or set YELLOW_PANE_DATABASE_URL to another database.`;

/** An open database on a server, held by this process alone. */
export interface ServerDatabase {
  readonly db: Database;
  /** Whether the schema was brought up to date just now. */
  readonly isUpdated: boolean;
  setPort(port: number): void;
  watch(watcher: StoreWatcher): void;
  close(): Promise<void>;
}

/**
 * Opens a database on a PostgreSQL server and brings its schema up to date.
 * @param beforeMigration gets the old database when the schema is about to change
 * @param silenceMs a server that says nothing for so long is gone
 * @throws Error with a sentence: out of reach, too old, in use by another process, written by a newer version, moved away
 */
export async function openOnServer(
  url: string,
  log: Pick<Logger, 'warn' | 'error'>,
  beforeMigration: (old: Database) => Promise<void>,
  silenceMs = SILENCE_MS,
): Promise<ServerDatabase> {
  const where = placeOf(url);
  let guard = await connected(url, silenceMs);
  let watcher: StoreWatcher | null = null;
  let isClosed = false;
  let port: number | null = null;
  const pool = new Connections({ ...settings(url, silenceMs), max: CONNECTIONS });
  // one that breaks is replaced by the next that asks; whoever asked is told
  pool.on('connect', (client) => void client.on('error', () => undefined));
  pool.on('error', (error) => log.warn(`A connection to ${where} ended: ${error.message}`));
  const name = (): void => {
    if (port !== null) guard.query(`set application_name = 'yellow-pane, port ${port}'`).catch(() => undefined);
  };

  /** Notices when the connection that holds the lock ends, and takes the lock again. */
  const keepLock = (): void => {
    const pulse = setInterval(() => guard.query('select 1').catch(() => guard.end().catch(() => undefined)), silenceMs / PULSES_IN_SILENCE);
    pulse.unref();
    let isOver = false;
    const over = (): void => {
      clearInterval(pulse);
      if (isOver || isClosed) return;
      isOver = true;
      log.warn(`${upper(where)} is gone: waiting for it to come back.`);
      void takeAgain();
    };
    guard.on('error', over);
    guard.on('end', over);
  };
  const takeAgain = async (): Promise<void> => {
    while (!isClosed) {
      await rest(AGAIN_MS);
      const next = new Client(settings(url, silenceMs));
      next.on('error', () => undefined);
      try {
        await next.connect();
        if (isClosed) return void (await next.end());
        if (!(await takeAdvisoryLock(next))) {
          const holder = await holderOf(next);
          await next.end();
          return watcher?.taken(inUse(where, holder));
        }
        guard = next;
        keepLock();
        name();
        // for a moment nothing kept another process out
        watcher?.doubt();
        log.warn(`${upper(where)} is back.`);
        return;
      } catch {
        await next.end().catch(() => undefined);
      }
    }
  };

  const close = async (): Promise<void> => {
    isClosed = true;
    await pool.end();
    await guard.end().catch(() => undefined);
  };
  try {
    await checkServer(guard, where, log);
    for (const until = Date.now() + HELD_STILL_MS; !(await takeAdvisoryLock(guard)); await rest(100))
      if (Date.now() > until) throw new Error(inUse(where, await holderOf(guard)));
    const client = drizzle(pool);
    const db = client as unknown as Database;
    const state = await schemaState(db, where);
    if (state === 'old') await beforeMigration(db);
    if (state !== 'current') await migrate(client, { migrationsFolder });
    await refuseMovedAway(db, where);
    keepLock();
    return {
      db,
      isUpdated: state === 'old',
      setPort: (p) => {
        port = p;
        name();
      },
      watch: (w) => (watcher = w),
      close,
    };
  } catch (error) {
    await close();
    throw error;
  }
}

/** A look at the records of a server beside whoever works with them. @throws Error with a sentence */
export async function readOnServer(url: string): Promise<{ readonly db: Database; close(): Promise<void> }> {
  const client = await connected(url);
  const db = drizzle(client) as unknown as Database;
  if ((await schemaState(db, placeOf(url))) !== 'current')
    throw new Error(`${upper(placeOf(url))} holds no records of this version of Yellow Pane: start it there once.`);
  return { db, close: () => client.end() };
}

/** Records on a PostgreSQL server: its commit is durable, so there is no journal; its own backups are its operator’s, an export a day is kept beside the photos. */
export async function postgresStore(url: string, dataDir: string, now: () => Date, log: Pick<Logger, 'warn' | 'error'>): Promise<Store> {
  const open = await openOnServer(url, log, async (old) => void (await writeExport(new RecordsRepository(old), dataDir, 'before-migration', now())));
  const records = new RecordsRepository(open.db);
  return {
    db: open.db,
    journal: null,
    isUpdated: open.isUpdated,
    setPort: open.setPort,
    watch: open.watch,
    backup: (kind, at) => writeExport(records, dataDir, kind, at),
    daily: async (at) => {
      if (needsDaily(dataDir, at)) await writeExport(records, dataDir, 'daily', at);
    },
    atStop: async () => undefined,
    // row versions go with the server’s own vacuum, its log with its operator’s archive (docs/operations.md)
    clearOut: async () => undefined,
    close: open.close,
  };
}
