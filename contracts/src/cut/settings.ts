import * as z from 'zod';
import { lengthMm, positiveLengthMm } from '../quantities.js';

/** What bench, knife and person allow. Lengths in mm. */
export const cutSettings = z.object({
  /** Longest drop that can be pulled and cut across on this bench or tailgate. */
  longestPullMm: positiveLengthMm,
  /** Strips with pieces in them narrower than this cannot be handled: such a piece is not laid. */
  smallestStripMm: lengthMm,
  /** Film lost at each crosscut and at each slit. */
  crosscutAllowanceMm: lengthMm.max(50),
  slitAllowanceMm: lengthMm.max(50),
  /** Heaviest sheet one person handles, as area; null = no limit. */
  largestSheetM2: z.number().positive().max(100).nullable(),
  /** 3: crosscut, slit, crosscut. 4: one slit more inside a row. */
  stages: z.union([z.literal(3), z.literal(4)]),
  /** Panes that meet may come from different lots. */
  mixLots: z.boolean().default(false),
  /** Embossed or metallised film: all pieces lie the same way round on the roll, so that they look alike beside one another. */
  oneDirection: z.boolean().default(true),
});
export type CutSettings = z.infer<typeof cutSettings>;

/** @source common practice for the allowances; pull and strip are house rules (a 3.6 m bench, a 60 mm strip). */
export const defaultCutSettings: CutSettings = {
  longestPullMm: 3600,
  smallestStripMm: 60,
  crosscutAllowanceMm: 3,
  slitAllowanceMm: 0,
  largestSheetM2: null,
  stages: 3,
  mixLots: false,
  oneDirection: true,
};
