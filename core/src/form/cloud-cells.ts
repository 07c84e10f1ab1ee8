import type { Polygon, Vec } from '../geometry/index.js';
import { median, type Dish } from './cloud-dish.js';
import type { FlatCloud } from './cloud-frame.js';
import { convexHull, rolledOutline } from './cloud-outline.js';

/** Cells along the longer side. A cell keeps the middle of its points; a smooth pane loses nothing by it. */
const CELLS = 44;
/** The disc that rolls round a cloud, over the longer side: tighter bends inwards are bridged, wider gaps in the border let it in. @source house rule */
const DISC_RADIUS = 1 / 3;
/** However many points a cell has, no scanner is truer than this, mm. @source house rule */
const LEAST_SIGMA_MM = 0.05;
/** A cell with so many points is well filled, however many the others have. */
const ENOUGH = 8;

/** Where in a cloud the pane is looked for. */
export interface CloudExtent {
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
  /** The longer side. */
  readonly sizeMm: number;
}

/** Squares over a pane: each has a number, so that those beside it are found by adding. */
export interface CellGrid {
  readonly cellMm: number;
  /** What the number of a cell differs by from that of the one above. */
  readonly wide: number;
  readonly numberOf: (xMm: number, yMm: number) => number;
  readonly isWithin: (xMm: number, yMm: number) => boolean;
}
export function cellGrid({ x, y, sizeMm }: CloudExtent): CellGrid {
  const cellMm = sizeMm / CELLS;
  const [fromX, fromY] = [x[0] - cellMm, y[0] - cellMm];
  const wide = 4 * CELLS;
  return {
    cellMm,
    wide,
    numberOf: (xMm, yMm) => Math.floor((yMm - fromY) / cellMm) * wide + Math.floor((xMm - fromX) / cellMm),
    isWithin: (xMm, yMm) => xMm >= fromX && yMm >= fromY && xMm <= x[1] + cellMm && yMm <= y[1] + cellMm,
  };
}

/** Points by the cell they lie in; a point is the number of its place in the cloud. */
export type Cells = ReadonlyMap<number, readonly number[]>;
export function sortedIntoCells({ x, y }: FlatCloud, grid: CellGrid, isIn: ArrayLike<number>): Cells {
  const cells = new Map<number, number[]>();
  for (let i = 0; i < x.length; i++) {
    if (!isIn[i] || !grid.isWithin(x[i]!, y[i]!)) continue;
    const cell = grid.numberOf(x[i]!, y[i]!);
    const list = cells.get(cell);
    if (list) list.push(i);
    else cells.set(cell, [i]);
  }
  return cells;
}

/** Cells that hold enough points to be believed: some, and not far fewer than is usual in this cloud. */
export function wellFilled(cells: Cells): (readonly number[])[] {
  const counts = [...cells.values()].map((c) => c.length).sort((a, b) => a - b);
  const least = Math.max(2, 0.2 * (counts[Math.floor(counts.length / 2)] ?? 0));
  return [...cells.values()].filter((c) => c.length >= Math.min(least, ENOUGH));
}

/** The middle of a cell: x, y, z and the doubt of z, mm. @param noiseMm spread of single points */
export function middleOfCell({ x, y, z }: FlatCloud, dish: Dish, noiseMm: number, points: readonly number[]): [number, number, number, number] {
  const mean = (v: Float64Array) => points.reduce((sum, i) => sum + v[i]!, 0) / points.length;
  const [xMm, yMm] = [mean(x), mean(y)];
  const offMm = median(Float64Array.from(points, (i) => z[i]! - dish(x[i]!, y[i]!)));
  // the median of n normal values spreads 1.25 times as wide as their mean
  return [xMm, yMm, dish(xMm, yMm) + offMm, Math.hypot(LEAST_SIGMA_MM, (1.25 * noiseMm) / Math.sqrt(points.length))];
}

/** The outline round well-filled cells, mm; the border runs through cells that are hardly filled: they count where they lie beside a good one. */
export function outlineOfCells({ x, y }: FlatCloud, cells: Cells, good: readonly (readonly number[])[], { wide, numberOf }: CellGrid, sizeMm: number): Polygon {
  const isGood = new Set(good.map((c) => numberOf(x[c[0]!]!, y[c[0]!]!)));
  const isBesideGood = (cell: number) => [0, 1, -1].some((dx) => [0, wide, -wide].some((dy) => isGood.has(cell + dx + dy)));
  const held = new Map([...cells].filter(([cell, list]) => list.length > 1 && isBesideGood(cell)));
  // only cells at the border matter, and of each only the points that stand out: a disc so much wider than a cell touches no other
  const ways = [1, -1, wide, -wide, wide + 1, wide - 1, 1 - wide, -1 - wide];
  const atBorder = [...held].filter(([cell]) => ways.some((d) => !held.has(cell + d)));
  const border: readonly Vec[] = atBorder.flatMap(([, list]) => convexHull(list.map((i) => ({ x: x[i]!, y: y[i]! }))));
  for (const times of [1, 2, 6]) {
    const outline = rolledOutline(border, times * DISC_RADIUS * sizeMm);
    if (outline) return outline;
  }
  return convexHull(border);
}
