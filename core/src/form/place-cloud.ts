import type { PaneCloud } from '@yellow-pane/contracts';
import type { Polygon, Vec } from '../geometry/index.js';
import { fail, ok, type Result } from '../ground/index.js';
import { sightsOfCloud } from './bow-sights.js';
import { cellGrid, middleOfCell, outlineOfCells, sortedIntoCells, wellFilled, type CellGrid, type CloudExtent } from './cloud-cells.js';
import { dishThrough, robustSpread, type Dish } from './cloud-dish.js';
import { frameByClicks, inFrame, likelyFrame, likelyUnit, type CloudFrame, type CloudUnit, type FlatCloud } from './cloud-frame.js';
import { leastBoxTurn, simplified } from './cloud-outline.js';
import { fitPane } from './pane-fit.js';
import { readCloud, type Points } from './read-cloud.js';
import { splineHeight } from './spline.js';
import type { Vec3 } from './surface.js';

/** A point so many spreads off the surface is a stray. */
const STRAY_AT = 4.5;
/** Fewer cells than this are no pane. @source house rule */
const LEAST_CELLS = 30;
/** Sides that a pane may have, mm. @source house limits: wider than any windscreen, lower than any port light */
const SIDES_MM = { longerFrom: 100, longerTo: 8000, shorterFrom: 40 };

/** Points as they lie, standing out towards whoever looks at them, and the dish through them. */
interface TurnedOut {
  readonly flat: FlatCloud;
  readonly extent: CloudExtent;
  readonly dish: Dish;
}

/** From where to where most of the values lie: half of a hundredth is left out at each end. */
function mostOf(values: Float64Array): readonly [number, number] {
  const sorted = values.slice().sort();
  const n = sorted.length;
  return [sorted[Math.floor(0.005 * n)]!, sorted[Math.min(n - 1, Math.ceil(0.995 * n) - 1)]!];
}
function extentOf({ x, y }: FlatCloud): CloudExtent {
  const [ofX, ofY] = [mostOf(x), mostOf(y)];
  return { x: ofX, y: ofY, sizeMm: Math.max(ofX[1] - ofX[0], ofY[1] - ofY[0]) };
}

/** How far the dish is hollow from side to side, mm. */
function hollowMm(dish: Dish, { x, y }: CloudExtent): number {
  const middle = (y[0] + y[1]) / 2;
  return dish(x[0], middle) + dish(x[1], middle) - 2 * dish((x[0] + x[1]) / 2, middle);
}

/** Gone round to the other side where it is seen from its hollow one; left and right stay as somebody pointed them out. */
function turnedOut(flat: FlatCloud, extent: CloudExtent, isPointedAt: boolean): TurnedOut {
  const dish = dishThrough(flat, extent.sizeMm);
  if (hollowMm(dish, extent) <= 0) return { flat, extent, dish };
  const other = { x: isPointedAt ? flat.x : flat.x.map((v) => -v), y: flat.y, z: flat.z.map((v) => -v) };
  return { flat: other, extent: extentOf(other), dish: dishThrough(other, extent.sizeMm) };
}

type Middle = readonly [number, number, number, number];

/** How far each point is off the smooth pane through the cells; NaN beside it. */
function offThePane({ x, y, z }: FlatCloud, cells: readonly Middle[], isIn: ArrayLike<number>, cellMm: number): Float64Array {
  const box = {
    minX: Math.min(...cells.map((c) => c[0])) - cellMm,
    maxX: Math.max(...cells.map((c) => c[0])) + cellMm,
    minY: Math.min(...cells.map((c) => c[1])) - cellMm,
    maxY: Math.max(...cells.map((c) => c[1])) + cellMm,
  };
  const fit = fitPane(box, sightsOfCloud({ cells: cells.map((c): [number, number, number, number] => [...c]) }));
  const smooth = splineHeight(fit.box, fit.coefficients);
  const isOver = (i: number) => x[i]! > box.minX && x[i]! < box.maxX && y[i]! > box.minY && y[i]! < box.maxY;
  return z.map((v, i) => (isIn[i] && isOver(i) ? v - smooth(x[i]!, y[i]!).z : NaN));
}

/** A cloud without its strays, thinned, with the outline round it. */
interface Thinned {
  readonly cells: readonly Middle[];
  readonly outline: Polygon;
  readonly noiseMm: number;
  readonly strayCount: number;
}

/** Strays are left out first by the dish, then by the smooth pane itself; what is left is averaged cell by cell. */
function thinned({ flat, extent, dish }: TurnedOut): Result<Thinned> {
  const grid: CellGrid = cellGrid(extent);
  const middles = (filled: readonly (readonly number[])[], noiseMm: number) => filled.map((c) => middleOfCell(flat, dish, noiseMm, c));
  const offDish = flat.z.map((v, i) => v - dish(flat.x[i]!, flat.y[i]!));
  const spreadMm = robustSpread(offDish);
  const coarseMm = Math.max(0.5, STRAY_AT * spreadMm, 0.02 * extent.sizeMm);
  const isNearDish = offDish.map((off) => (Math.abs(off) <= coarseMm ? 1 : 0));
  const first = middles(wellFilled(sortedIntoCells(flat, grid, isNearDish)), spreadMm);
  if (first.length < LEAST_CELLS) return fail('Hardly any of these points lie on one smooth surface: cut the cloud to the pane, or point at its corners.');
  const off = offThePane(flat, first, isNearDish, grid.cellMm);
  const noiseMm = robustSpread(off.filter((v) => !Number.isNaN(v)));
  const isOnPane = off.map((v) => (!Number.isNaN(v) && Math.abs(v) <= Math.max(0.2, STRAY_AT * noiseMm) ? 1 : 0));
  const last = sortedIntoCells(flat, grid, isOnPane);
  const good = wellFilled(last);
  if (good.length < LEAST_CELLS) return fail('Too few points are left on one smooth surface.');
  const keptCount = good.reduce((sum, c) => sum + c.length, 0);
  const outline = outlineOfCells(flat, last, good, grid, extent.sizeMm);
  return ok({ cells: middles(good, noiseMm), outline, noiseMm, strayCount: flat.x.length - keptCount });
}

/** Turned in its plane so that the smallest rectangle round it lies level. */
function levelled(cloud: Thinned): Thinned {
  const turn = leastBoxTurn(cloud.outline);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const turned = (p: Vec): Vec => ({ x: c * p.x + s * p.y, y: c * p.y - s * p.x });
  const cells = cloud.cells.map(([x, y, z, sigma]): Middle => {
    const p = turned({ x, y });
    return [p.x, p.y, z, sigma];
  });
  return { ...cloud, outline: cloud.outline.map(turned), cells };
}

const thousandths = (v: number): number => Math.round(v * 1000) / 1000;

/**
 * A point cloud brought to the pane's own plane and thinned. The outline is what a disc a third as wide as the pane is long touches as it rolls round the cells that
 * are well filled: it follows edges that are bent inwards and passes by holes.
 * @param pointedAt the frame that a person pointed out; null = guessed
 * @returns the cloud as it is kept with the pane, its lower left corner near the origin
 */
export function placeCloud(points: Points, fileName: string, fileUnit: CloudUnit, pointedAt: CloudFrame | null = null): Result<PaneCloud> {
  const flat = inFrame(points, pointedAt ?? likelyFrame(points), fileUnit);
  const extent = extentOf(flat);
  if (!(extent.sizeMm > SIDES_MM.longerFrom && extent.sizeMm < SIDES_MM.longerTo))
    return fail(
      `This cloud is ${Math.round(extent.sizeMm)} mm long if it is written in ${fileUnit}: no pane is. Choose another unit, or cut away what is not the pane.`,
    );
  const shorterMm = Math.min(extent.x[1] - extent.x[0], extent.y[1] - extent.y[0]);
  if (!(shorterMm > SIDES_MM.shorterFrom))
    return fail(
      `These points lie in a strip ${Math.round(shorterMm)} mm wide: an edge or a string, no pane. Scan the glass from side to side and from top to bottom.`,
    );
  const found = thinned(turnedOut(flat, extent, pointedAt !== null));
  if (!found.ok) return found;
  const { cells, outline, noiseMm, strayCount } = pointedAt ? found.value : levelled(found.value);
  const [left, low] = [Math.min(...outline.map((p) => p.x)), Math.min(...outline.map((p) => p.y))];
  const r = thousandths;
  return ok({
    fileName,
    pointCount: flat.x.length,
    strayCount,
    noiseMm: r(noiseMm),
    cells: cells.map(([x, y, z, sigma]) => [r(x - left), r(y - low), r(z), r(Math.max(sigma, 0.001))]),
    outline: simplified(outline, 0.3).map((p) => ({ x: r(p.x - left), y: r(p.y - low) })),
  });
}

/**
 * A file as the cloud of a pane: read, brought to its plane, thinned.
 * @param unit null: guessed from its size @param clicks lower left, lower right, somewhere at the top, in the file's own unit; null: guessed
 */
export function cloudOfPane(
  bytes: Uint8Array,
  fileName: string,
  unit: CloudUnit | null,
  clicks: readonly [readonly number[], readonly number[], readonly number[]] | null,
): Result<PaneCloud> {
  const points = readCloud(bytes);
  if (!points.ok) return points;
  const frame = clicks && frameByClicks(...(clicks as unknown as [Vec3, Vec3, Vec3]));
  if (frame && !frame.ok) return frame;
  return placeCloud(points.value, fileName, unit ?? likelyUnit(points.value), frame ? frame.value : null);
}
