import type * as z from 'zod';
import { firm, job, person, place } from './jobs/job.js';
import { ofEverySurface } from './measure/shared.js';
import { reading, surface, surfaceKinds, type SurfaceKind } from './measure/surface.js';
import { film } from './films/film.js';
import { roll } from './stock/roll.js';
import { logEntry, plan } from './cut/plan.js';
import { quote, rates } from './handover/quote.js';
import { reservation, stockEntry } from './stock/ledger.js';
import { plotRun } from './cut/plot.js';
import { stepSet } from './lay/steps.js';
import { layEntry } from './lay/log.js';
import type { RecordKind } from './record-kinds.js';

/** The schema of every kind of record. Apart from what is known of the kinds, so that a page can apply a change without carrying every schema. */
export const recordSchemas = {
  firm,
  person,
  job,
  place,
  surface,
  reading,
  film,
  roll,
  plan,
  logEntry,
  rates,
  quote,
  stockEntry,
  reservation,
  plotRun,
  stepSet,
  layEntry,
} as const satisfies Record<RecordKind, z.ZodObject | z.ZodDiscriminatedUnion>;
export type RecordOf<K extends RecordKind> = z.infer<(typeof recordSchemas)[K]>;
/** The schema of a kind, for whoever asks about any. */
export const schemaOf = (kind: RecordKind): z.ZodType<{ id: string }> => recordSchemas[kind];
/** The fields a record has; of a surface those of its kind, without which nothing but what all share is told. */
export const fieldsOf = (kind: RecordKind, record: { readonly kind?: unknown } = {}): Readonly<Record<string, z.ZodType>> =>
  kind === 'surface' ? (surfaceKinds[record.kind as SurfaceKind]?.shape ?? ofEverySurface) : recordSchemas[kind].shape;
