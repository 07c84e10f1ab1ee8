import * as z from 'zod';
import { lengthMm } from '../quantities.js';

/** The ways to bring a flat piece to size on the glass (the trade calls them schools). */
export const cutMethod = z.enum(['overhang', 'factory-edge', 'tucked-corner', 'dry-template', 'pre-cut']);
export type CutMethod = z.infer<typeof cutMethod>;

/** Steps that pieces with overhang are rounded up to: none (to a mark of the rule), fine or coarse. */
export const sizeStep = z.enum(['none', 'fine', 'coarse']);
export type SizeStep = z.infer<typeof sizeStep>;

/** The most that is kept for each, mm: beyond it a decimal point slipped. @source house rule */
export const MOST_ALLOWANCE_MM = { overhangMm: 300, overhangTopMm: 300, edgeGapMm: 10 } as const;
/** Free glass between film and frame. */
export const edgeGapMm = lengthMm.max(MOST_ALLOWANCE_MM.edgeGapMm);

/** What is added or left free round a pane. Firm, then job, then surface decide. */
export const allowances = z.object({
  /** Film past the frame on a trimmed side. */
  overhangMm: lengthMm.max(MOST_ALLOWANCE_MM.overhangMm),
  /** Film past the frame at the top, where tape tabs hang. */
  overhangTopMm: lengthMm.max(MOST_ALLOWANCE_MM.overhangTopMm),
  /** Free glass between film and gasket, where the film is not trimmed on the glass. */
  edgeGapMm,
  /** Handy sizes. Not said: none, as benches were before there was a choice. */
  sizeStep: sizeStep.optional(),
});
export type Allowances = z.infer<typeof allowances>;

/** @source common practice (1 in all round; 1–2 mm edge gap; nobody cuts 2099 mm with a knife where 2100 will do) */
export const defaultAllowances: Allowances = { overhangMm: 25, overhangTopMm: 25, edgeGapMm: 1.5, sizeStep: 'fine' };
