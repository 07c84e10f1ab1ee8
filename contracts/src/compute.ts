import * as z from 'zod';
import { alongRollMm, id, positiveLengthMm, unitSystem } from './quantities.js';
import { column } from './measure/column.js';
import { counter } from './measure/counter.js';
import { panel } from './measure/panel.js';
import { paneShape } from './measure/shape.js';
import { sign } from './measure/sign.js';
import { measureKey } from './measure/surface.js';
import { wall } from './measure/wall.js';
import { cutSettings } from './cut/settings.js';
import { cutMethod } from './cut/allowances.js';
import { drop, layout, piece } from './cut/layout.js';
import { rollEdges } from './stock/roll.js';

/** Input of the survey computation: what was taped, nothing else. */
export const surveyInput = z.object({
  calledCrooked: z.boolean().default(false),
  /** Null: four-sided. */
  shape: paneShape.nullable().default(null),
  readings: z.array(z.object({ measure: measureKey, lengthMm: z.number().min(-10_000).max(100_000).meta({ unit: 'mm' }) })).max(40),
});
/** The verdict on the tapes, in figures and words. */
export const surveyResult = z.object({
  status: z.enum(['nothing', 'two-tapes', 'unchecked', 'agreeing', 'doubtful', 'impossible']),
  headline: z.string(),
  body: z.string(),
  outline: z.array(z.object({ x: z.number(), y: z.number() })).nullable(),
  chiSquare: z.number().nullable(),
  limit: z.number().nullable(),
  redundancy: z.int().nullable(),
  suspects: z.array(z.object({ text: z.string(), probability: z.number() })),
  ask: z.object({ measure: measureKey, text: z.string(), gainBits: z.number() }).nullable(),
  cannotCheck: z.array(z.string()),
});
export type SurveyResult = z.infer<typeof surveyResult>;

/** Input of the survey of anything that is no pane of glass: its record, as it stands in a job, and what was taped. */
export const tapedInput = z.object({
  surface: z.discriminatedUnion('kind', [column, panel, wall, counter, sign]),
  readings: z.array(z.object({ measure: measureKey, lengthMm: z.number().min(-10_000).max(100_000).meta({ unit: 'mm' }) })).max(40),
  units: unitSystem.default('mm'),
});
export type TapedInput = z.output<typeof tapedInput>;
/** The verdict on the tapes, in words; what else does not fit, with the part it is about. */
export const tapedResult = surveyResult.pick({ status: true, headline: true, body: true, outline: true, suspects: true, ask: true }).extend({
  doubts: z.array(z.object({ part: z.string().nullable(), text: z.string() })),
  numbers: z.array(z.object({ name: z.string(), value: z.string() })),
  why: z.array(z.string()),
});
export type TapedResult = z.infer<typeof tapedResult>;

const rollToCut = z.object({
  id,
  widthMm: positiveLengthMm,
  availableMm: alongRollMm,
  pricePerM: z.number().min(0),
  fixedDrops: z.array(drop).default([]),
  edges: rollEdges.default('both'),
  lot: z.string().max(40).default(''),
});
/** Input of the layout computation. Same input, seed and steps: same plan. */
export const layoutInput = z.object({
  filmId: id,
  rolls: z.array(rollToCut).max(40),
  pieces: z.array(piece).max(2000),
  settings: cutSettings,
  seed: z.int().default(20),
  steps: z.int().min(0).max(50_000).default(1500),
  /** What one knife cut costs in minutes: film and minutes are weighed together. */
  cutPrice: z.number().min(0).max(1000).default(0),
});
export type LayoutComputeInput = z.infer<typeof layoutInput>;
export const layoutResult = layout;

export const methodFigures = z.object({
  method: cutMethod,
  usedM: z.number(),
  cost: z.number(),
  trims: z.int(),
  minutes: z.number(),
  /** Those minutes at the firm's hour rate. */
  workCost: z.number(),
  fallbackCount: z.int(),
  blockedCount: z.int(),
  unplacedCount: z.int(),
});
