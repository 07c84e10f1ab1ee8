import { and, asc, desc, eq, getTableName, gt, gte, inArray, isNotNull, ne, or, sql } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import type { Change, KindOfOneJob, RecordKind, RecordOf } from '@yellow-pane/contracts';
import type { Database } from './database.js';
import { forgetCounts } from './job-counts.repository.js';
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
export type FoundByJob = KindOfOneJob | 'stockEntry' | 'reservation';
const jobColumn: Readonly<Record<FoundByJob, PgColumn>> = {
  place: places.jobId,
  surface: surfaces.jobId,
  reading: readings.jobId,
  plan: plans.jobId,
  logEntry: logEntries.jobId,
  stockEntry: stockEntries.jobId,
  reservation: reservations.jobId,
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

  /** Runs `work` on the records as they are at one moment, whatever is written meanwhile; it writes nothing itself. */
  atOneMoment<T>(work: (records: RecordsRepository) => Promise<T>): Promise<T> {
    return this.db.transaction((tx) => work(new RecordsRepository(tx as unknown as Database)), { isolationLevel: 'repeatable read', accessMode: 'read only' });
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

  /** Movements on rolls, and promises of them, that are not deleted. */
  async ofRolls<K extends 'stockEntry' | 'reservation'>(kind: K, rollIds: readonly string[]): Promise<RecordOf<K>[]> {
    if (rollIds.length === 0) return [];
    const table = tableOf(kind);
    const rollId = kind === 'stockEntry' ? stockEntries.rollId : reservations.rollId;
    const rows = await this.db
      .select({ body: table.body })
      .from(table)
      .where(inArray(rollId, [...rollIds]))
      .orderBy(asc(table.id));
    return rows.map((r) => r.body as unknown as RecordOf<K>).filter((r) => r.deletedAt === null);
  }

  /** Movements that a job has to know of, not deleted: those on rolls that are there, and its own. What was cut of rolls long used up by other jobs is of no use to it. */
  async movementsFor(jobId: string): Promise<RecordOf<'stockEntry'>[]> {
    const onRolls = sql`exists (select 1 from ${rolls} where ${rolls.id} = ${stockEntries.rollId} and ${rolls.body}->>'deletedAt' is null)`;
    const rows = await this.db
      .select({ body: stockEntries.body })
      .from(stockEntries)
      .where(or(eq(stockEntries.jobId, jobId), onRolls))
      .orderBy(asc(stockEntries.id));
    return rows.map((r) => r.body as unknown as RecordOf<'stockEntry'>).filter((r) => r.deletedAt === null);
  }

  async rollsOfFilm(filmId: string): Promise<RecordOf<'roll'>[]> {
    const rows = await this.db.select({ body: rolls.body }).from(rolls).where(eq(rolls.filmId, filmId)).orderBy(asc(rolls.id));
    return rows.map((r) => r.body as unknown as RecordOf<'roll'>);
  }

  async jobNames(ids: readonly string[]): Promise<Record<string, string>> {
    if (ids.length === 0) return {};
    const rows = await this.db
      .select({ id: jobs.id, name: jobs.name })
      .from(jobs)
      .where(inArray(jobs.id, [...ids]));
    return Object.fromEntries(rows.map((r) => [r.id, r.name ?? '']));
  }

  async jobsDeletedSince(since: string): Promise<RecordOf<'job'>[]> {
    const rows = await this.db.select({ body: jobs.body }).from(jobs).where(gte(jobs.deletedAt, since));
    return rows.map((r) => r.body as unknown as RecordOf<'job'>);
  }

  async jobCount(): Promise<number> {
    return (await this.db.select({ n: sql<number>`count(*)::int` }).from(jobs))[0]?.n ?? 0;
  }

  /** How many panes there are of each film. */
  async panesWithFilm(): Promise<Record<string, number>> {
    const rows = await this.db
      .select({ film: surfaces.filmId, n: sql<number>`count(*)::int` })
      .from(surfaces)
      .where(and(isNotNull(surfaces.filmId), sql`${surfaces.body}->>'deletedAt' is null`))
      .groupBy(surfaces.filmId);
    return Object.fromEntries(rows.map((r) => [r.film!, r.n]));
  }

  /** Jobs that somebody has logged work in, the last changed first, so many at most, each with its last revision. */
  async laidJobs(most: number): Promise<{ jobId: string; last: number }[]> {
    const found = await this.db.execute(sql`
      select j.id, c.position as last from job j
      cross join lateral (select position from change where job_id = j.id order by position desc limit 1) c
      where j.deleted_at is null and exists (select 1 from lay_entry where job_id = j.id)
      order by c.position desc limit ${most}`);
    return (found.rows as { id: string; last: number | string }[]).map((r) => ({ jobId: r.id, last: Number(r.last) }));
  }

  /** Jobs with a line of a kind in their log, the last changed first, so many at most, each with its last revision. */
  async jobsWithLine(kind: RecordOf<'layEntry'>['kind'], most: number): Promise<{ jobId: string; last: number }[]> {
    const found = await this.db.execute(sql`
      select j.id, c.position as last from job j
      cross join lateral (select position from change where job_id = j.id order by position desc limit 1) c
      where j.deleted_at is null and exists (select 1 from lay_entry where job_id = j.id and kind = ${kind})
      order by c.position desc limit ${most}`);
    return (found.rows as { id: string; last: number | string }[]).map((r) => ({ jobId: r.id, last: Number(r.last) }));
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

  /** Records of a kind as they are stored, deleted ones too, in the order of their ids, so many at most. @param after the id of the last one had */
  async storedAfter(kind: RecordKind, after: string | null, most: number): Promise<{ id: string; body: Stored }[]> {
    const table = tableOf(kind);
    const rows = await this.db
      .select({ id: table.id, body: table.body })
      .from(table)
      .where(after === null ? undefined : gt(table.id, after))
      .orderBy(asc(table.id))
      .limit(most);
    return rows.map((r) => ({ id: r.id as string, body: r.body as unknown as Stored }));
  }

  /** Whether records of a kind have a place here: a database of an older version may know fewer. */
  async hasTable(kind: RecordKind): Promise<boolean> {
    const found = await this.db.execute<{ name: string | null }>(sql`select to_regclass(${getTableName(tableOf(kind))})::text as name`);
    return found.rows[0]!.name !== null;
  }

  /** Changes as they are, for a copy of the record; what they say is not applied. */
  async copyChanges(list: readonly Change[]): Promise<void> {
    if (list.length) await this.db.insert(changes).values(list.map(({ revision, ...rest }) => ({ ...rest, position: revision })));
  }

  /** Many records in one statement. */
  async putAll(kind: RecordKind, rows: readonly { readonly id: string; readonly body: Stored }[]): Promise<void> {
    if (rows.length === 0) return;
    await this.db
      .insert(tableOf(kind))
      .values([...rows])
      .onConflictDoUpdate({ target: tableOf(kind).id, set: { body: sql`excluded.body` } });
  }

  async addChange(change: Change): Promise<void> {
    const { revision, ...rest } = change;
    await this.db.insert(changes).values({ ...rest, position: revision });
    await forgetCounts(this.db, change);
  }

  /**
   * Writes the history anew where `rewrite` changes a change; everything else of it stays.
   * @param ids records that it looks at: changes that name none of them are not read
   * @param upTo the last revision that is looked at
   */
  async rewriteChanges(ids: readonly string[], upTo: number, rewrite: (change: Change) => Change): Promise<void> {
    const named = ids.map((id) => sql`${changes.patches}::text like ${`%${id}%`} or ${changes.inverse}::text like ${`%${id}%`}`);
    const rows = await this.db
      .select()
      .from(changes)
      .where(and(sql`${changes.position} <= ${upTo}`, or(...named)));
    for (const row of rows) {
      const [old, now] = [toChange(row), rewrite(toChange(row))];
      if (now !== old) await this.db.update(changes).set({ label: now.label, patches: now.patches, inverse: now.inverse }).where(eq(changes.position, row.position)); // prettier-ignore
    }
  }

  /** Lines of the log by which something was erased, each with the revision of its change. */
  async erasedBy(): Promise<{ line: RecordOf<'layEntry'>; revision: number }[]> {
    const rows = await this.db.select({ body: layEntries.body }).from(layEntries).where(eq(layEntries.kind, 'erased'));
    const out: { line: RecordOf<'layEntry'>; revision: number }[] = [];
    for (const { body } of rows) {
      const line = body as unknown as RecordOf<'layEntry'>;
      const by = await this.db
        .select({ position: changes.position })
        .from(changes)
        .where(and(eq(changes.jobId, line.jobId), sql`${changes.patches}::text like ${`%${line.id}%`}`))
        .orderBy(asc(changes.position))
        .limit(1);
      if (by[0]) out.push({ line, revision: by[0].position });
    }
    return out;
  }

  /** How many lines of any log hold a photo. */
  async linesWithPhoto(photo: string): Promise<number> {
    const rows = await this.db
      .select({ n: sql<number>`count(*)::int` })
      .from(layEntries)
      .where(sql`${layEntries.body}->>'photo' = ${photo}`);
    return rows[0]!.n;
  }

  /** Prices that became a job. */
  async quotesOfJob(jobId: string): Promise<RecordOf<'quote'>[]> {
    const rows = await this.db
      .select({ body: quotes.body })
      .from(quotes)
      .where(sql`${quotes.body}->>'jobId' = ${jobId}`);
    return rows.map((r) => r.body as unknown as RecordOf<'quote'>);
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

  /** The newest of a person's own steps in a job, so many at most, oldest first. @param deviceId only those made on that device; left out: on any */
  async lastChangesOfPerson(jobId: string, personId: string, deviceId: string | undefined, most: number): Promise<Change[]> {
    const mine = and(
      eq(changes.jobId, jobId),
      eq(changes.personId, personId),
      eq(changes.undoable, true),
      ...(deviceId === undefined ? [] : [eq(changes.deviceId, deviceId)]),
    );
    const rows = await this.db.select().from(changes).where(mine).orderBy(desc(changes.position)).limit(most);
    return rows.map(toChange).reverse();
  }

  /** Changes after a revision that other devices made on any of these records, oldest first. */
  async changesOfOthersAfter(revision: number, deviceId: string, ids: ReadonlySet<string>): Promise<Change[]> {
    const onThese = sql`exists (select 1 from jsonb_array_elements(${changes.patches}) p where p->>'id' in (${sql.join([...ids].map((id) => sql`${id}`), sql`, `)}))`; // prettier-ignore
    const theirs = and(gt(changes.position, revision), ne(changes.deviceId, deviceId), onThese);
    return (await this.db.select().from(changes).where(theirs).orderBy(asc(changes.position))).map(toChange);
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
