import { sql, type SQL } from 'drizzle-orm';
import { bigint, boolean, doublePrecision, index, integer, jsonb, pgTable, text, timestamp, uniqueIndex, uuid } from 'drizzle-orm/pg-core';

/**
 * One table per kind of record. `body` is the record as its contract describes it and the only copy of it; the other
 * columns are generated from it by the database, so that they can be searched and joined and can never disagree.
 */
const fromBody = (field: string): SQL => sql.raw(`(body->>'${field}')`);
const uuidOf = (column: string, field: string) => uuid(column).generatedAlwaysAs(sql`${fromBody(field)}::uuid`);
const textOf = (column: string, field: string) => text(column).generatedAlwaysAs(fromBody(field));
const numberOf = (column: string, field: string) => doublePrecision(column).generatedAlwaysAs(sql`${fromBody(field)}::double precision`);
const record = { id: uuid('id').primaryKey(), body: jsonb('body').$type<Record<string, unknown>>().notNull() };

export const firms = pgTable('firm', { ...record, name: textOf('name', 'name') });
export const persons = pgTable('person', { ...record, firmId: uuidOf('firm_id', 'firmId'), name: textOf('name', 'name') });
export const jobs = pgTable('job', {
  ...record,
  firmId: uuidOf('firm_id', 'firmId'),
  name: textOf('name', 'name'),
  deletedAt: textOf('deleted_at', 'deletedAt'),
  customer: textOf('customer', 'customer'),
  address: textOf('address', 'address'),
  dueOn: textOf('due_on', 'dueOn'),
  units: textOf('units', 'units'),
  createdAt: textOf('created_at', 'createdAt'),
});

/** How far a job has come, as it was counted last. It holds as long as its job has had no change since `countedAt`. No record: it can be counted anew at any time. */
export const jobCounts = pgTable('job_count', {
  jobId: uuid('job_id').primaryKey(),
  countedAt: bigint('counted_at', { mode: 'number' }).notNull(),
  surfaceCount: integer('surface_count').notNull(),
  measuredCount: integer('measured_count').notNull(),
  cutCount: integer('cut_count').notNull(),
});
export const places = pgTable('place', { ...record, jobId: uuidOf('job_id', 'jobId'), order: numberOf('walk_order', 'order') }, (t) => [
  index('place_job').on(t.jobId),
]);
export const surfaces = pgTable(
  'surface',
  {
    ...record,
    jobId: uuidOf('job_id', 'jobId'),
    placeId: uuidOf('place_id', 'placeId'),
    filmId: uuidOf('film_id', 'filmId'),
    order: numberOf('walk_order', 'order'),
  },
  (t) => [index('surface_job').on(t.jobId)],
);
export const readings = pgTable(
  'reading',
  {
    ...record,
    jobId: uuidOf('job_id', 'jobId'),
    surfaceId: uuidOf('surface_id', 'surfaceId'),
    measure: textOf('measure', 'measure'),
    lengthMm: numberOf('length_mm', 'lengthMm'),
  },
  (t) => [index('reading_job').on(t.jobId), index('reading_surface').on(t.surfaceId, t.measure)],
);
export const films = pgTable('film', { ...record, name: textOf('name', 'name') });
export const rolls = pgTable('roll', { ...record, filmId: uuidOf('film_id', 'filmId'), label: textOf('label', 'label') }, (t) => [
  index('roll_film').on(t.filmId),
]);
export const plans = pgTable('plan', { ...record, jobId: uuidOf('job_id', 'jobId'), filmId: uuidOf('film_id', 'filmId') }, (t) => [
  index('plan_job').on(t.jobId),
]);
export const logEntries = pgTable('log_entry', { ...record, jobId: uuidOf('job_id', 'jobId'), at: textOf('at', 'at') }, (t) => [
  index('log_entry_job').on(t.jobId),
]);

export const rates = pgTable('rates', { ...record, firmId: uuidOf('firm_id', 'firmId') });
export const quotes = pgTable('quote', { ...record, firmId: uuidOf('firm_id', 'firmId'), customer: textOf('customer', 'customer') });

export const stockEntries = pgTable(
  'stock_entry',
  { ...record, rollId: uuidOf('roll_id', 'rollId'), jobId: uuidOf('job_id', 'jobId'), lengthMm: numberOf('length_mm', 'lengthMm') },
  (t) => [index('stock_entry_roll').on(t.rollId), index('stock_entry_job').on(t.jobId)],
);
export const reservations = pgTable('reservation', { ...record, rollId: uuidOf('roll_id', 'rollId'), jobId: uuidOf('job_id', 'jobId') }, (t) => [
  index('reservation_roll').on(t.rollId),
  index('reservation_job').on(t.jobId),
]);
export const plotRuns = pgTable('plot_run', { ...record, jobId: uuidOf('job_id', 'jobId'), state: textOf('state', 'state') }, (t) => [
  index('plot_run_job').on(t.jobId),
]);

export const stepSets = pgTable('step_set', { ...record, firmId: uuidOf('firm_id', 'firmId') });
export const layEntries = pgTable(
  'lay_entry',
  {
    ...record,
    jobId: uuidOf('job_id', 'jobId'),
    surfaceId: uuidOf('surface_id', 'surfaceId'),
    kind: textOf('kind', 'kind'),
    lot: text('lot').generatedAlwaysAs(sql.raw("(body->'roll'->>'lot')")),
  },
  (t) => [
    index('lay_entry_job').on(t.jobId),
    index('lay_entry_lot')
      .on(t.lot)
      .where(sql`lot is not null`),
    index('lay_entry_called')
      .on(t.jobId)
      .where(sql`kind = 'called'`),
  ],
);

/** The history: every edit, in the order it was applied. `position` is the revision. */
export const changes = pgTable(
  'change',
  {
    position: bigint('position', { mode: 'number' }).primaryKey(),
    id: uuid('id').notNull().unique(),
    jobId: uuid('job_id').notNull(),
    personId: uuid('person_id').notNull(),
    deviceId: uuid('device_id').notNull(),
    deviceSeq: integer('device_seq').notNull(),
    baseRevision: bigint('base_revision', { mode: 'number' }).notNull(),
    label: text('label').notNull(),
    patches: jsonb('patches').notNull(),
    inverse: jsonb('inverse').notNull(),
    undoable: boolean('undoable').notNull(),
    undoesId: uuid('undoes_id'),
    at: timestamp('at', { withTimezone: true, mode: 'string' }).notNull(),
  },
  (t) => [uniqueIndex('change_device_seq').on(t.deviceId, t.deviceSeq), index('change_job').on(t.jobId, t.position)],
);

/** Where the records of this database went on, once they were moved: one row, or none. It is theirs no longer to be written. */
export const movedAway = pgTable('moved_away', {
  at: timestamp('at', { withTimezone: true, mode: 'string' }).primaryKey(),
  to: text('moved_to').notNull(),
});
