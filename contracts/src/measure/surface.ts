import * as z from 'zod';
import { id, instant, lengthMm, offsetMm, unitSystem, words } from '../quantities.js';
import { column, columnMeasure } from './column.js';
import { counter, counterMeasure } from './counter.js';
import { pane, paneMeasure } from './pane.js';
import { panel, panelMeasure } from './panel.js';
import { sign, signMeasure } from './sign.js';
import { wall, wallMeasure } from './wall.js';

/** What can be taped of any surface; each kind has its own list. */
export const measureKey = z.enum([
  ...paneMeasure.options,
  ...columnMeasure.exclude(['heightLeft', 'heightRight']).options,
  ...panelMeasure.extract(['edgeThickness', 'edgeGirth']).options,
  ...wallMeasure.extract(['upLeft', 'upMiddle', 'upRight', 'downLeft', 'downMiddle', 'downRight', 'wanderLeft', 'wanderRight']).options,
  ...counterMeasure.exclude(['widthMiddle', 'edgeThickness', 'edgeGirth']).options,
]);
export type MeasureKey = z.infer<typeof measureKey>;

/** One reading of one measure. Superseded, never overwritten: the newest that no other supersedes is in force. */
export const reading = z.object({
  id,
  jobId: id,
  surfaceId: id,
  measure: measureKey,
  /** Exactly what was typed. */
  typed: words(40),
  unit: unitSystem,
  lengthMm: offsetMm.or(lengthMm),
  /** Quote: what a price was asked for; a guess until somebody tapes it. */
  instrument: z.enum(['tape', 'laser', 'straightedge', 'import', 'quote']),
  personId: id,
  at: instant,
  supersedesId: id.nullable(),
  /** A reading taken back without a new one: it no longer counts, but stays in the record. */
  withdrawnAt: instant.nullable(),
  deletedAt: instant.nullable(),
});
export type Reading = z.infer<typeof reading>;

/** Every kind of surface: one physical thing that film is laid on. A new kind is added here; what still lacks it no longer compiles. */
export const surfaceKinds = { pane, column, panel, wall, counter, sign } as const;
export type SurfaceKind = keyof typeof surfaceKinds;
/** What can be taped of each kind. */
export const measuresOfKind: { readonly [K in SurfaceKind]: readonly MeasureKey[] } = {
  pane: paneMeasure.options,
  column: columnMeasure.options,
  panel: panelMeasure.options,
  wall: wallMeasure.options,
  counter: counterMeasure.options,
  sign: signMeasure.options,
};
/** The record of a surface of one kind. */
export type SurfaceOf<K extends SurfaceKind> = z.infer<(typeof surfaceKinds)[K]>;

/** One physical pane, column, panel …: a union of kinds. What all share stands in `shared.ts`, what one kind has in its own file. */
export const surface = z.discriminatedUnion('kind', [pane, column, panel, wall, counter, sign]);
export type Surface = z.infer<typeof surface>;
