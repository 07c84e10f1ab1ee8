import { and, asc, desc, eq, gt, inArray, sql } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import type { Change, KindOfOneJob, RecordKind, RecordOf } from '@yellow-pane/contracts';
import type { Database } from './database.js';
import {
  changes,
  films,
  firms,
  jobs,
  layEntries,
  logEntries,
  persons,
  places,
  plans,
  plotRuns,
  quotes,
  rates,
  readings,
  reservations,
  rolls,
  stepSets,
  stockEntries,
  surfaces,
} from './tables.js';

/** All record tables have an id and a body; that is all that is asked of them here. */
type RecordTable = typeof firms;
const asRecords = (table: { id: PgColumn; body: PgColumn }): RecordTable => table as unknown as RecordTable;
const tables: Record<RecordKind, RecordTable> = {
  firm: asRecords(firms),
  person: asRecords(persons),
  job: asRecords(jobs),
  place: asRecords(places),
  surface: asRecords(surfaces),
  reading: asRecords(readings),
  film: asRecords(films),
  roll: asRecords(rolls),
  plan: asRecords(plans),
  logEntry: asRecords(logEntries),
  rates: asRecords(rates),
  quote: asRecords(quotes),
  stockEntry: asRecords(stockEntries),
  reservation: asRecords(reservations),
  plotRun: asRecords(plotRuns),
  stepSet: asRecords(stepSets),
  layEntry: asRecords(layEntries),
};
const tableOf = (kind: RecordKind): RecordTable => tables[kind];
/** Kinds that are asked for by their job. */
export type FoundByJob = KindOfOneJob | 'stockEntry';
const jobColumn: Readonly<Record<FoundByJob, PgColumn>> = {
  place: places.jobId,
  surface: surfaces.jobId,
  reading: readings.jobId,
  plan: plans.jobId,
  logEntry: logEntries.jobId,
  stockEntry: stockEntries.jobId,
  plotRun: plotRuns.jobId,
  layEntry: layEntries.jobId,
};

type Stored = Record<string, unknown>;
const toChange = (row: typeof changes.$inferSelect): Change => {
  const { position, ...rest } = row;
  return { ...rest, revision: position, at: new Date(row.at).toISOString() } as Change;
};

/** All reading and writing of records and their history, within one connection or transaction. */
export class RecordsRepository {
  constructor(protected readonly db: Database) {}

  /** Runs `work` in one transaction: all of it happens or nothing. */
  transaction<T>(work: (records: RecordsRepository) => Promise<T>): Promise<T> {
    return this.db.transaction((tx) => work(new RecordsRepository(tx as unknown as Database)));
  }

  /** Told what will be asked for, so that it can be read together where that pays. */
  async expect(_list: readonly { readonly kind: RecordKind; readonly id: string }[]): Promise<void> {}

  /** The connection of this repository, for one that writes together. */
  connection(): Database {
    return this.db;
  }

  async find<K extends RecordKind>(kind: K, id: string): Promise<RecordOf<K> | null> {
    const rows = await this.db
      .select({ body: tableOf(kind).body })
      .from(tableOf(kind))
      .where(eq(tableOf(kind).id, id));
    return (rows[0]?.body as unknown as RecordOf<K> | undefined) ?? null;
  }

  async ofJob<K extends FoundByJob>(kind: K, jobId: string): Promise<RecordOf<K>[]> {
    const rows = await this.db
      .select({ body: tableOf(kind).body })
      .from(tableOf(kind))
      .where(eq(jobColumn[kind], jobId))
      .orderBy(asc(tableOf(kind).id));
    return rows.map((r) => r.body as unknown as RecordOf<K>);
  }

  async all<K extends RecordKind>(kind: K): Promise<RecordOf<K>[]> {
    const rows = await this.db
      .select({ body: tableOf(kind).body })
      .from(tableOf(kind))
      .orderBy(asc(tableOf(kind).id));
    return rows.map((r) => r.body as unknown as RecordOf<K>);
  }

  async existing(kind: RecordKind, ids: readonly string[]): Promise<Set<string>> {
    if (ids.length === 0) return new Set();
    const rows = await this.db
      .select({ id: tableOf(kind).id })
      .from(tableOf(kind))
      .where(inArray(tableOf(kind).id, [...ids]));
    return new Set(rows.map((r) => r.id as string));
  }

  async put(kind: RecordKind, id: string, body: Stored): Promise<void> {
    await this.db
      .insert(tableOf(kind))
      .values({ id, body })
      .onConflictDoUpdate({ target: tableOf(kind).id, set: { body } });
  }

  /** Bodies by id; ids that are not there have none. */
  protected async bodies(kind: RecordKind, ids: readonly string[]): Promise<Map<string, Stored>> {
    if (ids.length === 0) return new Map();
    const rows = await this.db
      .select({ id: tableOf(kind).id, body: tableOf(kind).body })
      .from(tableOf(kind))
      .where(inArray(tableOf(kind).id, [...ids]));
    return new Map(rows.map((r) => [r.id as string, r.body as unknown as Stored]));
  }

  /** Many records in one statement. */
  protected async putAll(kind: RecordKind, rows: readonly { readonly id: string; readonly body: Stored }[]): Promise<void> {
    if (rows.length === 0) return;
    await this.db
      .insert(tableOf(kind))
      .values([...rows])
      .onConflictDoUpdate({ target: tableOf(kind).id, set: { body: sql`excluded.body` } });
  }

  async addChange(change: Change): Promise<void> {
    const { revision, ...rest } = change;
    await this.db.insert(changes).values({ ...rest, position: revision });
  }

  async revision(): Promise<number> {
    const rows = await this.db.select({ top: sql<number>`coalesce(max(${changes.position}), 0)::int` }).from(changes);
    return rows[0]?.top ?? 0;
  }

  async changeById(id: string): Promise<Change | null> {
    const rows = await this.db.select().from(changes).where(eq(changes.id, id));
    return rows[0] ? toChange(rows[0]) : null;
  }

  async changesOfJob(jobId: string): Promise<Change[]> {
    return (await this.db.select().from(changes).where(eq(changes.jobId, jobId)).orderBy(asc(changes.position))).map(toChange);
  }

  /** @param deviceId only those made on that device; left out: on any */
  async changesOfPerson(jobId: string, personId: string, deviceId?: string): Promise<Change[]> {
    const mine = and(
      eq(changes.jobId, jobId),
      eq(changes.personId, personId),
      eq(changes.undoable, true),
      ...(deviceId === undefined ? [] : [eq(changes.deviceId, deviceId)]),
    );
    return (await this.db.select().from(changes).where(mine).orderBy(asc(changes.position))).map(toChange);
  }

  async changesAfter(revision: number): Promise<Change[]> {
    return (await this.db.select().from(changes).where(gt(changes.position, revision)).orderBy(asc(changes.position))).map(toChange);
  }

  /** Changes of one job after a revision, oldest first: what a listener that was away has missed. */
  async changesOfJobAfter(jobId: string, revision: number): Promise<Change[]> {
    const later = and(eq(changes.jobId, jobId), gt(changes.position, revision));
    return (await this.db.select().from(changes).where(later).orderBy(asc(changes.position))).map(toChange);
  }

  /** Changes after a revision, oldest first, so many at most. */
  async changesAfterAtMost(revision: number, most: number): Promise<Change[]> {
    return (await this.db.select().from(changes).where(gt(changes.position, revision)).orderBy(asc(changes.position)).limit(most)).map(toChange);
  }

  /** Readings of one measure of one pane that are not deleted, oldest first. */
  async readingsOf(surfaceId: string, measure: string): Promise<RecordOf<'reading'>[]> {
    const rows = await this.db
      .select({ body: readings.body })
      .from(readings)
      .where(and(eq(readings.surfaceId, surfaceId), eq(readings.measure, measure)))
      .orderBy(asc(readings.id));
    return rows.map((r) => r.body as unknown as RecordOf<'reading'>).filter((r) => r.deletedAt === null);
  }

  async allChanges(): Promise<Change[]> {
    return (await this.db.select().from(changes).orderBy(asc(changes.position))).map(toChange);
  }

  async allChangeIds(): Promise<Set<string>> {
    return new Set((await this.db.select({ id: changes.id }).from(changes)).map((r) => r.id));
  }

  async lastDeviceSeq(deviceId: string): Promise<number> {
    const rows = await this.db.select({ seq: changes.deviceSeq }).from(changes).where(eq(changes.deviceId, deviceId)).orderBy(desc(changes.deviceSeq)).limit(1);
    return rows[0]?.seq ?? 0;
  }

  async lastChangeAt(jobId: string): Promise<string | null> {
    const rows = await this.db.select({ at: changes.at }).from(changes).where(eq(changes.jobId, jobId)).orderBy(desc(changes.position)).limit(1);
    return rows[0] ? new Date(rows[0].at).toISOString() : null;
  }
}
