import * as z from 'zod';
import { id } from '../quantities.js';
import { ofDrySurface } from './dry-surface.js';
import { hardware } from './hardware.js';

/** Corners of a top, seen from above by one who stands at its front. */
export const counterCorner = z.enum(['frontLeft', 'frontRight', 'backRight', 'backLeft']);
export type CounterCorner = z.infer<typeof counterCorner>;

/**
 * What can be taped of a counter or table top. From corner to corner: to the middle of the round where a corner is rounded. Of a rounded corner: from where two
 * rulers along its sides cross to where the straight ends (`setback`), and to the round itself (`gap`).
 */
export const counterMeasure = z.enum([
  'widthFront',
  'widthMiddle',
  'widthBack',
  'depthLeft',
  'depthMiddle',
  'depthRight',
  'fromBackLeft',
  'fromFrontLeft',
  'setbackFrontLeft',
  'gapFrontLeft',
  'setbackFrontRight',
  'gapFrontRight',
  'setbackBackRight',
  'gapBackRight',
  'setbackBackLeft',
  'gapBackLeft',
  'edgeThickness',
  'edgeGirth',
]);
export type CounterMeasure = z.infer<typeof counterMeasure>;

/**
 * What film does at one side of a top: trimmed at the arris, over the edge, over it and on to the underside; its edge has a strip of its own; it ends at a wall or
 * where another top begins.
 */
export const counterSide = z.enum(['trimmed', 'edge', 'return', 'strip', 'wall', 'joint']);
export type CounterSide = z.infer<typeof counterSide>;

/** A counter, table top or shelf that film is laid on dry. */
export const counter = z.object({
  ...ofDrySurface,
  kind: z.literal('counter'),
  what: z.enum(['counter', 'table', 'shelf']),
  sides: z.object({ front: counterSide, right: counterSide, back: counterSide, left: counterSide }),
  /** Corners that are rounded; the others are sharp. */
  round: z.array(counterCorner).max(4),
  /** How the film’s direction runs over it. */
  grain: z.enum(['along', 'across']),
  /** The top on its left that it is joined to, from which grain and lot go on; null: none. */
  besideId: id.nullable().default(null),
  /** How film meets film where its roll is too narrow for the top. */
  seam: z.enum(['overlap', 'double-cut']),
  /** Sink, cable outlets, what stands on it; places are from its left side and its front. */
  hardware: z.array(hardware).max(20),
});
export type Counter = z.infer<typeof counter>;
