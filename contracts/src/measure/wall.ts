import * as z from 'zod';
import { id, lengthMm, positiveLengthMm } from '../quantities.js';
import { ofDrySurface } from './dry-surface.js';
import { hardware } from './hardware.js';

/**
 * What can be taped of a wall, as one stands before it: from end to end, from floor to ceiling, corner to corner; from a level laser line up to the ceiling and
 * down to the floor; and the widest gap between a straightedge and each end.
 */
export const wallMeasure = z.enum([
  'widthTop',
  'widthMiddle',
  'widthBottom',
  'heightLeft',
  'heightMiddle',
  'heightRight',
  'diagonalDown',
  'diagonalUp',
  'upLeft',
  'upMiddle',
  'upRight',
  'downLeft',
  'downMiddle',
  'downRight',
  'wanderLeft',
  'wanderRight',
]);
export type WallMeasure = z.infer<typeof wallMeasure>;

/** How film ends at one end of a wall. */
export const wallEnd = z.object({
  /** It stops there, or another wall begins: in the corner of a room, or round an arris. */
  is: z.enum(['stop', 'inside', 'outside']),
  /** Between the two walls, on the side that people see. Null: nobody measured it. */
  angleDeg: z.number().min(20).max(340).nullable().meta({ unit: '°' }),
  /** Film of this wall is laid first and goes round the corner; else that of the wall beside it does, and this one’s is laid over it. */
  isFirst: z.boolean(),
});
export type WallEnd = z.infer<typeof wallEnd>;

/** Joints of a wall of blocks or bricks. */
export const masonry = z.object({
  unit: z.enum(['block', 'brick']),
  /** From the middle of a joint to the middle of the next. */
  pitchAcrossMm: positiveLengthMm,
  pitchUpMm: positiveLengthMm,
  jointMm: positiveLengthMm,
  /** 0: flush. */
  jointDepthMm: lengthMm,
  bond: z.enum(['running', 'thirds', 'stack']),
  /** Middle of the first bed joint, from the foot at the left end. */
  firstBedMm: lengthMm,
  /** Middle of the first head joint of the first course, from the left end. */
  firstHeadMm: lengthMm,
  texture: z.enum(['glazed', 'smooth', 'medium', 'rough']),
  /** Counted, cut ones with them: they check the pitch. Null: nobody counted. */
  courses: z.int().min(1).max(500).nullable(),
  unitsInFirstCourse: z.int().min(1).max(2000).nullable(),
});
export type Masonry = z.infer<typeof masonry>;

/** From a level line: + to the side it is told of, − to the other (a landing that lies above the line). */
const fromLineMm = z.number().min(-20_000).max(20_000).meta({ unit: 'mm' });
/** A place along a wall where its ceiling or its floor breaks: a gable, a beam, stairs, a landing. Taped from its left end, and up and down from the level line. */
export const wallBreak = z.object({
  id,
  fromLeftMm: lengthMm,
  /** Null: the ceiling goes on straight there. */
  upMm: fromLineMm.nullable(),
  /** Null: the floor goes on straight there. */
  downMm: fromLineMm.nullable(),
});
export type WallBreak = z.infer<typeof wallBreak>;

/** One flat stretch of wall that film is laid on dry, from one corner or end to the next. */
export const wall = z.object({
  ...ofDrySurface,
  kind: z.literal('wall'),
  left: wallEnd,
  right: wallEnd,
  /** The wall that goes on at its right end. What that corner is stands here: the left end of that one is not asked. */
  nextId: id.nullable(),
  /** How its drops meet. */
  seam: z.enum(['overlap', 'double-cut']),
  /** The end that the first drop is hung at. */
  hungFrom: z.enum(['left', 'right']),
  /** Drops from ceiling to floor; or lengths along the wall, from the foot up, each over the one below it: for film without a direction. */
  lie: z.enum(['upright', 'level']).default('upright'),
  /** How the film’s direction runs over the drops of a run of walls: all one way, or every other one turned half round, so that each shows the next the same edge of the roll (book-match). */
  hanging: z.enum(['one-way', 'book']).default('one-way'),
  /** Whether it stands in an escape route, where film needs a written yes. */
  fire: z.enum(['no', 'rated', 'unknown']),
  hardware: z.array(hardware).max(60),
  /** Null: it is smooth. */
  masonry: masonry.nullable(),
  /** From the left; of two at one place the first comes first: a beam. Empty: floor and ceiling are straight from end to end. */
  breaks: z.array(wallBreak).max(24).default([]),
});
export type Wall = z.infer<typeof wall>;
