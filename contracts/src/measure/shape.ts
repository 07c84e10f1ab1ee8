import * as z from 'zod';
import { id, lengthMm, offsetMm, positiveLengthMm } from '../quantities.js';

/** Outlines that a tape can take; `four-sided` stands for none of them: see the measures of an opening. `drawn`: from a drawing file. */
export const shapeKind = z.enum(['rake', 'parallelogram', 'triangle', 'arch-round', 'arch-flat', 'arch-pointed', 'circle', 'quarter', 'polygon', 'drawn']);
export type ShapeKind = z.infer<typeof shapeKind>;

/** Corners of a polygon, anticlockwise from the lower left; its sill runs from A to B. */
export const cornerLetter = z.enum(['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H']);
export type CornerLetter = z.infer<typeof cornerLetter>;

/** A point of an outline, x right, y up. `bulge`: tangent of a quarter of the angle of the arc to the next point, positive anticlockwise, 0 for a straight side. */
export const pathPoint = z.object({ xMm: offsetMm, yMm: offsetMm, bulge: z.number().min(-10).max(10) });
export type PathPoint = z.infer<typeof pathPoint>;

/** Where the right angle of a quarter sits: such lights come in pairs. */
export const cornerPlace = z.enum(['lower-left', 'lower-right', 'upper-left', 'upper-right']);
export type CornerPlace = z.infer<typeof cornerPlace>;

/** What kind of outline a pane has, and what a tape cannot say of it. */
export const paneShape = z.object({
  kind: shapeKind,
  /** Of an arch: straight sides below the spring. */
  hasLegs: z.boolean().default(false),
  /** Of a quarter. */
  corner: cornerPlace.default('lower-left'),
  /** Of a polygon. */
  corners: z.int().min(3).max(8).default(4),
  /** Corners of a polygon that point inwards. */
  inward: z.array(cornerLetter).max(5).default([]),
  /** Of a drawn outline, closed, anticlockwise. */
  path: z.array(pathPoint).min(2).max(4000).nullable().default(null),
});
export type PaneShape = z.infer<typeof paneShape>;

/** A shape of a kind, all else as it is usual. */
export const newShape = (kind: ShapeKind, more: Partial<PaneShape> = {}): PaneShape => paneShape.parse({ kind, ...more });

/** Glass that is not there or gets no film: placed from two edges of the opening's box. */
export const cutOut = z.object({
  id,
  what: z.enum(['handle', 'vent', 'letter slot', 'hole', 'other']),
  isRound: z.boolean(),
  widthMm: positiveLengthMm,
  /** Of a round one, the same as the width. */
  heightMm: positiveLengthMm,
  fromSide: z.enum(['left', 'right']),
  acrossMm: lengthMm,
  fromEdge: z.enum(['bottom', 'top']),
  upMm: lengthMm,
});
export type CutOut = z.infer<typeof cutOut>;
