import { isDeepStrictEqual } from 'node:util';
import { allKinds, type Change, type RecordKind } from '@yellow-pane/contracts';
import { pagesOf } from './backup.js';
import type { Database } from './database.js';
import { RecordsRepository } from './records.repository.js';
import { movedAway } from './tables.js';

/** So many rows go over at once. @source house rule */
const ROWS = 500;

/** What went over and was found there as it is here. */
export interface Moved {
  readonly recordCount: number;
  readonly changeCount: number;
}

interface Lane<T> {
  readonly name: string;
  readonly read: (records: RecordsRepository, last: T | null) => Promise<T[]>;
  readonly write: (records: RecordsRepository, rows: T[]) => Promise<void>;
}
interface Row {
  readonly id: string;
  readonly body: Record<string, unknown>;
}
const laneOf = (kind: RecordKind): Lane<Row> => ({
  name: kind,
  read: (records, last) => records.storedAfter(kind, last?.id ?? null, ROWS),
  write: (records, rows) => records.putAll(kind, rows),
});
const history: Lane<Change> = {
  name: 'change',
  read: (records, last) => records.changesAfterAtMost(last?.revision ?? 0, ROWS),
  write: (records, rows) => records.copyChanges(rows),
};

/**
 * Copies all records and their history into an empty database of this version, and compares them there, record by record, before any of it counts.
 * The one they come from stays as it is.
 * @throws Error with a sentence when the other one is not empty, or holds something else than was written; then it is empty again
 */
export function copyRecords(from: Database, to: Database, tell: (words: string) => void): Promise<Moved> {
  return new RecordsRepository(from).atOneMoment((source) =>
    new RecordsRepository(to).transaction(async (target) => {
      if ((await target.revision()) > 0) throw new Error('There are records already where these are to go. Name an empty database.');
      let recordCount = 0;
      for (const kind of allKinds) recordCount += await over(laneOf(kind), source, target);
      tell(`${recordCount} records are written. Their history …`);
      const changeCount = await over(history, source, target);
      tell(`${changeCount} changes are written. Comparing each of them …`);
      for (const kind of allKinds) await compare(laneOf(kind), source, target);
      await compare(history, source, target);
      return { recordCount, changeCount };
    }),
  );
}

async function over<T>(lane: Lane<T>, source: RecordsRepository, target: RecordsRepository): Promise<number> {
  let count = 0;
  for await (const rows of pagesOf((last: T | null) => lane.read(source, last), ROWS)) {
    await lane.write(target, rows);
    count += rows.length;
  }
  return count;
}

/** Both sides are read again, page by page, in the same order. */
async function compare<T extends { readonly id: string }>(lane: Lane<T>, source: RecordsRepository, target: RecordsRepository): Promise<void> {
  const there = pagesOf((last: T | null) => lane.read(target, last), ROWS);
  for await (const here of pagesOf((last: T | null) => lane.read(source, last), ROWS)) {
    const copies = (await there.next()).value as T[] | undefined;
    for (const [i, row] of here.entries())
      if (!isDeepStrictEqual(row, copies?.[i])) throw new Error(`${lane.name} ${row.id} did not arrive as it is here. Nothing was moved.`);
    if (copies!.length !== here.length) throw tooMany(lane.name);
  }
  if (!(await there.next()).done) throw tooMany(lane.name);
}
const tooMany = (name: string): Error => new Error(`There are more records of the kind ${name} than were sent. Nothing was moved.`);

/** From now on whoever opens this database is told where its records went. */
export async function markMovedAway(db: Database, to: string, now: Date): Promise<void> {
  await db.insert(movedAway).values({ at: now.toISOString(), to });
}
