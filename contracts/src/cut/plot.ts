import * as z from 'zod';
import { id, instant, words } from '../quantities.js';

/** What is set at the plotter before it cuts. */
export const plotSettings = z.object({
  /** Knife pressure as the machine counts it, grams. */
  forceG: z.number().min(5).max(600).meta({ unit: 'g' }),
  speedMmPerS: z.number().min(5).max(1500).meta({ unit: 'mm/s' }),
  /** What 100 mm come out as, along and across: a test square is measured and typed in. */
  scaleX: z.number().min(0.95).max(1.05),
  scaleY: z.number().min(0.95).max(1.05),
  /** Cut the waste into strips that can be pulled. */
  weeding: z.boolean(),
  /** Corner marks for cutting in several passes or laying by. */
  registration: z.boolean(),
});
export type PlotSettings = z.infer<typeof plotSettings>;
/** @source house rules for thin vinyl and polyester on liner; the material's own test cut decides */
export const defaultPlotSettings: PlotSettings = { forceG: 90, speedMmPerS: 400, scaleX: 1, scaleY: 1, weeding: true, registration: true };

export const plotState = z.enum(['running', 'paused', 'stopped', 'failed', 'interrupted', 'done']);
export type PlotState = z.infer<typeof plotState>;

/** One piece at the plotter. Paths that the machine has confirmed are counted; a run that broke off goes on with the first that is not. */
export const plotRun = z.object({
  id,
  jobId: id,
  pieceId: z.string(),
  label: words(120),
  settings: plotSettings,
  /** Hash of the paths: a run goes on only with the same ones. */
  pathsHash: z.string(),
  pathCount: z.int().min(0),
  confirmedCount: z.int().min(0),
  state: plotState,
  message: words(300),
  personId: id,
  startedAt: instant,
  endedAt: instant.nullable(),
});
export type PlotRun = z.infer<typeof plotRun>;

/** What the plotter cuts for one piece. */
export const plotSheet = z.object({
  widthMm: z.number(),
  heightMm: z.number(),
  paths: z.array(z.object({ kind: z.enum(['cut', 'weed', 'register']), points: z.array(z.object({ x: z.number(), y: z.number() })) })),
  cutMm: z.number(),
  travelMm: z.number(),
});

const spot = z.tuple([z.number(), z.number()]);
/** What the machine says it has cut, mm from the plotter's origin; what is planned is the sheet of the piece. */
export const plotStatus = z.object({
  run: plotRun.nullable(),
  plotted: z.array(z.array(spot)),
  /** How many paths were plotted before those in `plotted`. */
  plottedFrom: z.int(),
  plottedCount: z.int(),
  widthMm: z.number(),
  heightMm: z.number(),
  /** Where knife and plan are farthest apart so far. */
  worstOffMm: z.number().nullable(),
  isConnected: z.boolean(),
  machine: z.string(),
});
export type PlotStatus = z.infer<typeof plotStatus>;
