import * as z from 'zod';
import { id, instant, lengthMm, offsetMm, positiveLengthMm, unitSystem, words } from '../quantities.js';

/**
 * Which way a straightedge lies on the pane: level, plumb, from the upper left to the lower right (`down`) or from the lower left to the upper right (`up`).
 */
export const bowWay = z.enum(['across', 'upright', 'down', 'up']);
export type BowWay = z.infer<typeof bowWay>;

/** Where a straightedge lies. */
export const bowPlace = z.object({
  way: bowWay,
  /** Level: above the line between the lower corners. Plumb: to the right of the lower left corner. Of a diagonal: 0. */
  atMm: offsetMm,
  /** A short straightedge: where on that line it begins (from the left, of a plumb one from below), and how long it is; null = from edge to edge. */
  span: z.object({ fromMm: lengthMm, lengthMm: positiveLengthMm }).nullable().default(null),
});
export type BowPlace = z.infer<typeof bowPlace>;

/** Gap under the middle of a straightedge, seen from the hollow side; negative where the glass stands up against it (a saddle). */
export const bow = bowPlace.extend({
  id,
  /** Exactly what was typed. */
  typed: words(40),
  unit: unitSystem,
  depthMm: z.number().min(-500).max(500).meta({ unit: 'mm' }),
  personId: id.nullable(),
  at: instant,
});
export type Bow = z.infer<typeof bow>;

/** Where heat, knife or water has to mind something. */
export const zoneKind = z.enum(['brake-light', 'wiper', 'seal', 'sensor', 'airbag', 'antenna', 'other']);
export type ZoneKind = z.infer<typeof zoneKind>;
export const paneZone = z.object({
  id,
  kind: zoneKind,
  leftMm: offsetMm,
  lowMm: offsetMm,
  widthMm: positiveLengthMm,
  heightMm: positiveLengthMm,
});
export type PaneZone = z.infer<typeof paneZone>;

/** Heating lines printed on the room face: film is laid along them, never across a knife. */
export const defroster = z.object({
  way: z.enum(['across', 'upright']),
  /** The lowest line above the lower corners, of upright ones the leftmost from the left. */
  firstMm: lengthMm,
  spacingMm: positiveLengthMm,
  count: z.int().min(1).max(60),
});
export type Defroster = z.infer<typeof defroster>;

/** A point of a smoothed point cloud: mm right, up and out of the plane, and how sure the last one is. */
const cloudCell = z.tuple([offsetMm, offsetMm, z.number().min(-5000).max(5000), z.number().positive().max(100)]);
/** A point cloud brought to the pane's own plane and thinned: many points averaged cell by cell, strays left out. */
export const paneCloud = z.object({
  fileName: words(120),
  pointCount: z.int().min(1),
  strayCount: z.int().min(0),
  /** Standard deviation of a single point from the smooth surface. */
  noiseMm: z.number().min(0).max(100).meta({ unit: 'mm' }),
  cells: z.array(cloudCell).min(12).max(3000),
  /** Anticlockwise, round the points that stay; it may bend inwards. */
  outline: z
    .array(z.object({ x: offsetMm, y: offsetMm }))
    .min(3)
    .max(400),
});
export type PaneCloud = z.infer<typeof paneCloud>;

/** Where the film is laid down first. */
export const anchorChoice = z.discriminatedUnion('kind', [
  /** As the trade lays it on this seat: an arch on drop glass, an H on fixed glass. */
  z.object({ kind: z.literal('balanced') }),
  /** An H: a line across where fingers above and below need the same shrink, then down both sides. */
  z.object({ kind: z.literal('h') }),
  /** An arch: across the top and down both sides, everything hangs below. */
  z.object({ kind: z.literal('arch') }),
  /** The straight line through two points at the sides, by their height above the lower corners. */
  z.object({ kind: z.literal('through'), leftMm: offsetMm, rightMm: offsetMm }),
  /** A line that is not straight on the glass: level, or along a heating line. Three heights: left, middle, right. */
  z.object({ kind: z.literal('forced'), leftMm: offsetMm, middleMm: offsetMm, rightMm: offsetMm }),
]);
export type AnchorChoice = z.infer<typeof anchorChoice>;

export const formingSchool = z.enum(['finger-by-finger', 'double-lift', 'single-lift', 'tug-and-heat', 'gel-and-fold']);
export type FormingSchool = z.infer<typeof formingSchool>;
export const lubrication = z.enum(['wet', 'dry']);
export type Lubrication = z.infer<typeof lubrication>;

/** What makes a pane a curved one: all that is measured of its curve, and how it is to be formed. */
export const curvedPane = z.object({
  /** Fixed in its seal, or dropping into a door. */
  seat: z.enum(['fixed', 'drop']).default('fixed'),
  /** How widths, heights and diagonals were taped: pulled tight from corner to corner, or laid over the glass. */
  taped: z.enum(['chord', 'over']).default('chord'),
  /** Lower left, lower right, upper right, upper left. */
  cornerRadiiMm: z.tuple([lengthMm, lengthMm, lengthMm, lengthMm]).default([0, 0, 0, 0]),
  bows: z.array(bow).max(60).default([]),
  /** Edges that somebody saw turn in sharply; absent = nobody said so. */
  turnsIn: z
    .array(z.enum(['lower', 'upper']))
    .max(2)
    .optional(),
  /** The pane it is measured like is its mirror image. */
  isMirror: z.boolean().default(false),
  dotBorderMm: lengthMm.nullable().default(null),
  defroster: defroster.nullable().default(null),
  zones: z.array(paneZone).max(20).default([]),
  cloud: paneCloud.nullable().default(null),
  anchor: anchorChoice.default({ kind: 'balanced' }),
  /** Null: as the firm works, or as recommended. */
  school: formingSchool.nullable().default(null),
  lubrication: lubrication.nullable().default(null),
  /** Somebody saw the tempered stamp, or that there is none. */
  stamp: z.enum(['unknown', 'tempered', 'laminated', 'plastic']).default('unknown'),
  isChipped: z.boolean().default(false),
});
export type CurvedPane = z.infer<typeof curvedPane>;

/** A curved pane that nobody has measured yet. */
export const newCurvedPane = (known: Partial<CurvedPane> = {}): CurvedPane => ({ ...curvedPane.parse({}), ...known });
