import * as z from 'zod';
import { alongRollMm, filmMm, id, lengthMm, positiveLengthMm } from '../quantities.js';
import { pathPoint } from '../measure/shape.js';
import { cutMethod } from './allowances.js';

export const edge = z.enum(['top', 'right', 'bottom', 'left']);
export type Edge = z.infer<typeof edge>;
/** Turn of a piece on the roll, clockwise as drawn with x to the right and y up. 0: its top points along +x, away from the squared start, so its height lies along the roll and its right side at the near edge. */
export const turn = z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]);
export type Turn = z.infer<typeof turn>;

/** A place of a piece or of a cut in it: film along a wall is longer than any pane. */
const onPieceMm = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const cutPoint = pathPoint.extend({ xMm: onPieceMm, yMm: onPieceMm });

/** One of two shaped pieces that are cut out of one rectangle and parted by a straight cut. */
export const piecePart = z.object({
  id: z.string(),
  surfaceId: id,
  label: z.string(),
  widthMm: positiveLengthMm,
  heightMm: positiveLengthMm,
  /** Outline of the part in the rectangle's own frame. */
  path: z.array(cutPoint).min(3),
  /** Whether it lies upside down in the rectangle. */
  isTurned: z.boolean(),
});
export type PiecePart = z.infer<typeof piecePart>;

/** How a piece is brought to size: a pane’s by its method; one that goes round a column is trimmed at both its ends, one that goes over a panel round it. */
export const pieceMethod = z.enum([...cutMethod.options, 'laid-round', 'laid-over']);
export type PieceMethod = z.infer<typeof pieceMethod>;

/**
 * A cut in a piece: right through the film, or through its liner only; or a pencil line on the liner, where nothing is cut. `later`: it is made when the film lies,
 * not at the bench.
 */
export const benchCut = z.object({
  layer: z.enum(['film', 'liner', 'mark']),
  later: z.literal(true).optional(),
  /** The way of the blade, in the piece's own frame; closed where it ends in its beginning. */
  path: z.array(cutPoint).min(2).max(200),
  /** What it is, and why it is made. */
  words: z.string().max(400),
});
export type BenchCut = z.infer<typeof benchCut>;

/** A piece to be cut, as seen from the liner side. Its own frame: mm, lower left corner at the origin, x right, y up to the top of the pane. */
export const piece = z.object({
  id: z.string(),
  surfaceId: id,
  label: z.string(),
  filmId: id,
  method: pieceMethod,
  widthMm: positiveLengthMm,
  heightMm: positiveLengthMm,
  turns: z.array(turn).min(1),
  /** Edge, in piece coordinates, that must be the roll's own straight edge; null = any. */
  factoryEdge: edge.nullable(),
  /** Edges, as seen by the person laying it, that are trimmed on the glass. */
  trimmedEdges: z.array(edge),
  /** What it must at least cover (overhang), or its true outline (pre-cut), where that is no rectangle. */
  path: z.array(cutPoint).min(3).nullable().default(null),
  /** Cut-outs of a pre-cut piece. */
  holes: z.array(z.array(cutPoint).min(2)).max(20).default([]),
  /** Panes that meet are known by this: they come from one lot. Null: stands alone. */
  meets: z.string().nullable().default(null),
  /** Patterned film: the repeat along the roll, and where in it the piece must start (from the end nearer to the roll's start). */
  repeat: z.object({ repeatMm: positiveLengthMm, startMm: lengthMm }).nullable().default(null),
  /** Cut by the plotter to a design; the design itself is made from the pane when it is needed. */
  isPlotted: z.boolean().default(false),
  /** Two pieces in one rectangle; empty for a piece of its own. */
  parts: z.array(piecePart).max(2).default([]),
  /** What the bench cuts in it, in the order it is done; left out: nothing. */
  bench: z.array(benchCut).max(160).optional(),
  /** Why it has its size, in sentences. */
  why: z.array(z.string()),
  /** Set when the surface falls back from the job's method. */
  fallback: z.string().nullable(),
});
export type Piece = z.infer<typeof piece>;

/** A piece at its place: x along the roll from its squared start, y across from the near edge, as drawn liner up. */
export const placedPiece = z.object({
  pieceId: z.string(),
  turn,
  xMm: alongRollMm,
  yMm: lengthMm,
  alongMm: positiveLengthMm,
  acrossMm: positiveLengthMm,
});
export type PlacedPiece = z.infer<typeof placedPiece>;

export const row = z.object({ xMm: alongRollMm, alongMm: positiveLengthMm, pieces: z.array(placedPiece).min(1) });
export const dropColumn = z.object({ yMm: lengthMm, acrossMm: positiveLengthMm, rows: z.array(row).min(1) });
/** A full-width length cut off the roll, and how it is taken apart: slits make columns, crosscuts make rows. */
export const drop = z.object({ xMm: alongRollMm, alongMm: positiveLengthMm, columns: z.array(dropColumn).min(1), locked: z.boolean() });
export type Row = z.infer<typeof row>;
export type DropColumn = z.infer<typeof dropColumn>;
export type Drop = z.infer<typeof drop>;

export const rollLayout = z.object({ rollId: id, usedMm: alongRollMm, drops: z.array(drop) });
export type RollLayout = z.infer<typeof rollLayout>;

/** The whole layout of one film's pieces on its rolls. */
export const layout = z.object({
  filmId: id,
  rolls: z.array(rollLayout),
  /** Pieces that no roll can take, each with the reason in words. */
  unplaced: z.array(z.object({ pieceId: z.string(), reason: z.string() })),
  usedMm: filmMm,
  cost: z.number(),
  /** No plan under these rules can cost less; null = not computed. */
  boundCost: z.number().nullable(),
  cutCount: z.int(),
  /** Film that is missing for what is unplaced for want of it. */
  shortMm: filmMm.default(0),
  shortWidthMm: positiveLengthMm.nullable().default(null),
  seed: z.int(),
  steps: z.int(),
});
export type Layout = z.infer<typeof layout>;
