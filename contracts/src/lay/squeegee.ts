import * as z from 'zod';
import { defaultAllowances, edgeGapMm } from '../cut/allowances.js';
import { lockSchool, stepReading, strokeOverlapMm } from './steps.js';

const point = z.object({ x: z.number().min(-100_000).max(100_000), y: z.number().min(-100_000).max(100_000) });
const ring = z.array(point).min(3).max(600);
/** What film lies on, seen from the side that is worked on, mm, anticlockwise; openings in it; blade and overlap. */
export const squeegeeRequest = z.object({
  outline: ring,
  holes: z.array(ring).max(20).default([]),
  bladeMm: z.number().min(25).max(900).meta({ unit: 'mm' }),
  overlapMm: strokeOverlapMm,
  lock: lockSchool.default('tee'),
  edgeGapMm: edgeGapMm.default(defaultAllowances.edgeGapMm),
  isThick: z.boolean().default(false),
});
export type SqueegeeRequestBody = z.infer<typeof squeegeeRequest>;

const stroke = z.object({ tool: z.enum(['squeegee', 'card', 'finger']), bladeMm: z.number(), path: z.array(point), how: z.enum(['pull', 'push', 'press']) });
/** Strokes in order, or why there is no plan that presses everything. */
export const squeegeeResult = z.discriminatedUnion('ok', [
  z.object({
    ok: z.literal(true),
    plan: z.object({
      passes: z.array(z.object({ name: z.enum(['lock', 'light', 'hard', 'edges']), strokes: z.array(stroke) })),
      stopLine: z.array(point),
      corners: z.array(z.object({ at: point, angleDeg: z.number() })),
      strokeCount: z.int(),
      lengthMm: z.number(),
      minutes: z.number(),
      missedMm2: z.object({ light: z.number(), hard: z.number() }),
      bladeMm: z.number(),
    }),
  }),
  z.object({ ok: z.literal(false), why: z.string() }),
]);
export type SqueegeeResult = z.infer<typeof squeegeeResult>;

/** The steps of one pane as they are worked through. */
export const runSheet = z.object({
  stepSetId: z.string(),
  steps: z.array(
    z.object({
      key: z.string(),
      title: z.string(),
      text: z.string(),
      purpose: z.string(),
      good: z.string(),
      tools: z.array(z.string()),
      minutes: z.number(),
      wait: z.object({ minutes: z.number(), what: z.string() }).nullable(),
      returnAfterMinutes: z.number().nullable(),
      reading: stepReading,
      drawing: z.string(),
      mood: z.enum(['dry', 'wet', 'look']),
      caution: z.string().nullable(),
    }),
  ),
  minutes: z.number(),
});
export type RunSheetBody = z.infer<typeof runSheet>;
