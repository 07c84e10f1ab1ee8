import type { PaneCloud } from '@yellow-pane/contracts';
import { symmetricAxes, type Polygon, type Vec } from '../geometry/index.js';
import { fail, ok, type Result } from '../ground/index.js';
import { sightsOfCloud } from './bow-sights.js';
import { convexHull, leastBoxTurn, rolledOutline, simplified } from './cloud-outline.js';
import { fitPane } from './pane-fit.js';
import { readCloud, type Points } from './read-cloud.js';
import { splineHeight } from './spline.js';
import type { Vec3 } from './surface.js';

/** Units a file may be written in. */
export type CloudUnit = 'mm' | 'm' | 'in';
const mmPer: Record<CloudUnit, number> = { mm: 1, m: 1000, in: 25.4 };
/** Cells along the longer side. A cell keeps the middle of its points; a smooth pane loses nothing by it. */
const CELLS = 44;
/** The disc that rolls round a cloud, over the longer side: tighter bends inwards are bridged, wider gaps in the border let it in. @source house rule */
const DISC_RADIUS = 1 / 3;
/** A point so many spreads off the surface is a stray. */
const STRAY_AT = 4.5;
/** However many points a cell has, no scanner is truer than this, mm. @source house rule */
const LEAST_SIGMA_MM = 0.05;

/** Where the pane lies in space: its origin, its ways right, up and out. */
export interface CloudFrame {
  readonly origin: Vec3;
  readonly right: Vec3;
  readonly up: Vec3;
  readonly out: Vec3;
}

const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vec3, b: Vec3): Vec3 => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const unit = (a: Vec3): Vec3 => {
  const l = Math.hypot(...a);
  return [a[0] / l, a[1] / l, a[2] / l];
};
const negative = (a: Vec3): Vec3 => [-a[0], -a[1], -a[2]];
const pointAt = (p: Points, i: number): Vec3 => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!];

/** The unit a file is most likely written in: a pane is between 0.2 and 4 m. */
export function likelyUnit(points: Points): CloudUnit {
  const spread = [0, 1, 2].map((k) => {
    const values = Array.from({ length: points.length / 3 }, (_, i) => points[3 * i + k]!).sort((a, b) => a - b);
    return values[Math.floor(0.98 * values.length)]! - values[Math.floor(0.02 * values.length)]!;
  });
  const size = Math.max(...spread);
  return size < 8 ? 'm' : size < 130 ? 'in' : 'mm';
}

/** Middle and main axes of the points, the farthest tenth left out once they are known. */
function mainAxes(points: Points): { centre: Vec3; axes: readonly [Vec3, Vec3, Vec3] } {
  const n = points.length / 3;
  const step = Math.max(1, Math.floor(n / 20_000));
  let ids = Array.from({ length: Math.floor(n / step) }, (_, i) => i * step);
  let centre: Vec3 = [0, 0, 0];
  let axes: readonly [Vec3, Vec3, Vec3] = [[1, 0, 0], [0, 1, 0], [0, 0, 1]]; // prettier-ignore
  for (let round = 0; round < 3; round++) {
    centre = [0, 0, 0];
    for (const i of ids) centre = [centre[0] + points[3 * i]! / ids.length, centre[1] + points[3 * i + 1]! / ids.length, centre[2] + points[3 * i + 2]! / ids.length]; // prettier-ignore
    const c = [0, 1, 2].map(() => [0, 0, 0]);
    for (const i of ids) {
      const d = sub(pointAt(points, i), centre);
      for (let a = 0; a < 3; a++) for (let b = 0; b < 3; b++) c[a]![b]! += d[a]! * d[b]!;
    }
    axes = symmetricAxes(c) as unknown as typeof axes;
    const far = ids.map((i) => ({ i, d: Math.abs(dot(sub(pointAt(points, i), centre), axes[2])) })).sort((a, b) => a.d - b.d);
    ids = far.slice(0, Math.ceil(0.9 * far.length)).map((f) => f.i);
  }
  return { centre, axes };
}

/**
 * Which way is right, up and out, from the points alone: the pane's plane by its main axes; up is the axis that stands upright in the file (its z, else its y), else
 * the shorter one.
 */
export function likelyFrame(points: Points): CloudFrame {
  const { centre, axes } = mainAxes(points);
  const out = axes[2];
  const upright = (k: 1 | 2) => [0, 1].map((i) => axes[i as 0 | 1][k]);
  let up: Vec3 = axes[1];
  for (const k of [2, 1] as const) {
    const [a, b] = upright(k);
    if (Math.max(Math.abs(a!), Math.abs(b!)) < 0.7) continue;
    up = Math.abs(a!) > Math.abs(b!) ? axes[0] : axes[1];
    if (up[k] < 0) up = negative(up);
    break;
  }
  return { origin: centre, up, out, right: cross(up, out) };
}

/** Three places that a person pointed at: lower left, lower right, and anything at the top. */
export function frameByClicks(lowerLeft: Vec3, lowerRight: Vec3, top: Vec3): Result<CloudFrame> {
  const along = sub(lowerRight, lowerLeft);
  const out = cross(along, sub(top, lowerLeft));
  if (!(Math.hypot(...along) > 1e-6) || !(Math.hypot(...out) > 1e-6 * Math.hypot(...along) ** 2))
    return fail('These three points lie on one line. Point at the lower left corner, the lower right corner, and somewhere at the top.');
  const [right, outwards] = [unit(along), unit(out)];
  return ok({ origin: lowerLeft, right, out: outwards, up: cross(outwards, right) });
}

interface Flat {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
}
function inFrame(points: Points, f: CloudFrame, scale: number): Flat {
  const n = points.length / 3;
  const [x, y, z] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    const d = sub(pointAt(points, i), f.origin);
    x[i] = scale * dot(d, f.right);
    y[i] = scale * dot(d, f.up);
    z[i] = scale * dot(d, f.out);
  }
  return { x, y, z };
}

const median = (values: Float64Array): number => {
  const sorted = values.slice().sort();
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
};
/** Spread of residuals that strays do not move. @source 1.4826 × median of the absolute values, for normal noise */
const robustSpread = (r: Float64Array): number => 1.4826 * median(r.map(Math.abs));

/** A dish through the points: six numbers, points far off weighted down. @source Tukey's biweight, c = 4.685 (from memory) */
function dishThrough({ x, y, z }: Flat, scaleMm: number): (px: number, py: number) => number {
  let c = [0, 0, 0, 0, 0, 0];
  const row = (px: number, py: number) => {
    const [u, v] = [px / scaleMm, py / scaleMm];
    return [1, u, v, u * u, u * v, v * v];
  };
  const at = (px: number, py: number) => row(px, py).reduce((s, v, k) => s + v * c[k]!, 0);
  const step = Math.max(1, Math.floor(x.length / 15_000));
  let width = Infinity;
  for (let round = 0; round < 8; round++) {
    const a = Array.from({ length: 6 }, () => new Float64Array(7));
    for (let i = 0; i < x.length; i += step) {
      const r = z[i]! - at(x[i]!, y[i]!);
      const t = r / (4.685 * width);
      const w = Math.abs(t) >= 1 ? 0 : (1 - t * t) ** 2;
      if (w === 0) continue;
      const p = row(x[i]!, y[i]!);
      for (let j = 0; j < 6; j++) {
        for (let k = 0; k < 6; k++) a[j]![k]! += w * p[j]! * p[k]!;
        a[j]![6]! += w * p[j]! * z[i]!;
      }
    }
    c = solved(a);
    width = Math.max(0.02, robustSpread(Float64Array.from({ length: Math.floor(x.length / step) }, (_, i) => z[i * step]! - at(x[i * step]!, y[i * step]!))));
  }
  return at;
}
/** Six equations by elimination with pivots. */
function solved(a: Float64Array[]): number[] {
  const n = a.length;
  for (let k = 0; k < n; k++) {
    let p = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i]![k]!) > Math.abs(a[p]![k]!)) p = i;
    [a[k], a[p]] = [a[p]!, a[k]!];
    for (let i = 0; i < n; i++) {
      if (i === k || a[k]![k] === 0) continue;
      const f = a[i]![k]! / a[k]![k]!;
      for (let j = k; j <= n; j++) a[i]![j]! -= f * a[k]![j]!;
    }
  }
  return a.map((row, i) => (row[i] === 0 ? 0 : row[n]! / row[i]!));
}

type Cells = Map<number, number[]>;

/**
 * A point cloud brought to the pane's own plane and thinned: strays are left out first by a dish, then by the smooth pane itself; what is left is averaged cell by
 * cell; the outline is what a disc a third as wide as the pane is long touches as it rolls round the cells that are well filled: it follows edges that are bent
 * inwards and passes by holes.
 * @param pointedAt the frame that a person pointed out; null = guessed
 * @returns the cloud as it is kept with the pane, its lower left corner near the origin
 */
export function placeCloud(points: Points, fileName: string, fileUnit: CloudUnit, pointedAt: CloudFrame | null = null): Result<PaneCloud> {
  const frame = pointedAt ?? likelyFrame(points);
  const scale = mmPer[fileUnit];
  let flat = inFrame(points, frame, scale);
  const n = flat.x.length;
  const sizeOf = (v: Float64Array): readonly [number, number] => {
    const s = v.slice().sort();
    return [s[Math.floor(0.005 * n)]!, s[Math.min(n - 1, Math.ceil(0.995 * n) - 1)]!];
  };
  let [xs, ys] = [sizeOf(flat.x), sizeOf(flat.y)];
  const size = Math.max(xs[1] - xs[0], ys[1] - ys[0]);
  if (!(size > 100 && size < 8000))
    return fail(
      `This cloud is ${Math.round(size)} mm long if it is written in ${fileUnit}: no pane is. Choose another unit, or cut away what is not the pane.`,
    );
  let dish = dishThrough(flat, size);
  const hollow = (d: typeof dish) => d(xs[0], (ys[0] + ys[1]) / 2) + d(xs[1], (ys[0] + ys[1]) / 2) - 2 * d((xs[0] + xs[1]) / 2, (ys[0] + ys[1]) / 2);
  if (hollow(dish) > 0) {
    // so that it stands out towards whoever looks at it: gone round to the other side, unless somebody said what is left and right
    flat = { x: pointedAt ? flat.x : flat.x.map((v) => -v), y: flat.y, z: flat.z.map((v) => -v) };
    [xs, ys] = [sizeOf(flat.x), sizeOf(flat.y)];
    dish = dishThrough(flat, size);
  }
  const { x, y, z } = flat;
  const off = z.map((v, i) => v - dish(x[i]!, y[i]!));
  const coarse = Math.max(0.5, STRAY_AT * robustSpread(off), 0.02 * size);
  const isIn = off.map((r) => (Math.abs(r) <= coarse ? 1 : 0));
  const cell = size / CELLS;
  const [ox, oy] = [xs[0] - cell, ys[0] - cell];
  const wide = 4 * CELLS;
  const key = (i: number) => Math.floor((y[i]! - oy) / cell) * wide + Math.floor((x[i]! - ox) / cell);
  const fill = (): Cells => {
    const cells: Cells = new Map();
    for (let i = 0; i < n; i++) {
      if (!isIn[i] || x[i]! < ox || y[i]! < oy || x[i]! > xs[1] + cell || y[i]! > ys[1] + cell) continue;
      const k = key(i);
      const list = cells.get(k);
      if (list) list.push(i);
      else cells.set(k, [i]);
    }
    return cells;
  };
  const filled = (cells: Cells) => {
    const counts = [...cells.values()].map((c) => c.length).sort((a, b) => a - b);
    const least = Math.max(2, 0.2 * (counts[Math.floor(counts.length / 2)] ?? 0));
    return [...cells.values()].filter((c) => c.length >= Math.min(least, 8));
  };
  const cellOf = (list: readonly number[], noise: number): [number, number, number, number] => {
    const m = (v: Float64Array) => list.reduce((s, i) => s + v[i]!, 0) / list.length;
    const [mx, my] = [m(x), m(y)];
    const height = median(Float64Array.from(list, (i) => z[i]! - dish(x[i]!, y[i]!)));
    // the median of n normal values spreads 1.25 times as wide as their mean
    return [mx, my, dish(mx, my) + height, Math.hypot(LEAST_SIGMA_MM, (1.25 * noise) / Math.sqrt(list.length))];
  };
  let noise = robustSpread(off);
  let cells = filled(fill()).map((c) => cellOf(c, noise));
  if (cells.length < 30) return fail('Hardly any of these points lie on one smooth surface: cut the cloud to the pane, or point at its corners.');
  const bounds = (list: readonly (readonly [number, number, ...number[]])[]) => ({
    minX: Math.min(...list.map((c) => c[0])) - cell,
    maxX: Math.max(...list.map((c) => c[0])) + cell,
    minY: Math.min(...list.map((c) => c[1])) - cell,
    maxY: Math.max(...list.map((c) => c[1])) + cell,
  });
  const fit = fitPane(bounds(cells), sightsOfCloud({ cells }));
  const smooth = splineHeight(fit.box, fit.coefficients);
  const box = bounds(cells);
  const miss = z.map((v, i) => (isIn[i] && x[i]! > box.minX && x[i]! < box.maxX && y[i]! > box.minY && y[i]! < box.maxY ? v - smooth(x[i]!, y[i]!).z : NaN));
  noise = robustSpread(miss.filter((v) => !Number.isNaN(v)));
  miss.forEach((r, i) => (isIn[i] = !Number.isNaN(r) && Math.abs(r) <= Math.max(0.2, STRAY_AT * noise) ? 1 : 0));
  const last = fill();
  const good = filled(last);
  cells = good.map((c) => cellOf(c, noise));
  const kept = good.reduce((sum, c) => sum + c.length, 0);
  if (cells.length < 30) return fail('Too few points are left on one smooth surface.');
  // the border runs through cells that are hardly filled: they count where they lie beside a good one
  const isGood = new Set(good.map((c) => key(c[0]!)));
  const beside = [...last].filter(([k, list]) => list.length > 1 && [0, 1, -1].some((dx) => [0, wide, -wide].some((dy) => isGood.has(k + dx + dy))));
  let outline = outlineOfCells(new Map(beside.map(([k, list]) => [k, list.map((i) => ({ x: x[i]!, y: y[i]! }))])), wide, size);
  if (!pointedAt) {
    const turn = leastBoxTurn(outline);
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const turned = (p: Vec): Vec => ({ x: c * p.x + s * p.y, y: c * p.y - s * p.x });
    outline = outline.map(turned);
    cells = cells.map(([px, py, pz, sigma]) => {
      const p = turned({ x: px, y: py });
      return [p.x, p.y, pz, sigma];
    });
  }
  const [left, low] = [Math.min(...outline.map((p) => p.x)), Math.min(...outline.map((p) => p.y))];
  const r = (v: number) => Math.round(v * 1000) / 1000;
  return ok({
    fileName,
    pointCount: n,
    strayCount: n - kept,
    noiseMm: r(noise),
    cells: cells.map(([cx, cy, cz, s]) => [r(cx - left), r(cy - low), r(cz), r(Math.max(s, 0.001))]),
    outline: simplified(outline, 0.3).map((p) => ({ x: r(p.x - left), y: r(p.y - low) })),
  });
}

/**
 * The outline round well-filled cells. Only cells at the border matter, and of each only the points that stand out: a disc so much wider than a cell touches no other.
 * @param wide keys of one row of cells differ from those of the next by this much
 */
function outlineOfCells(cells: ReadonlyMap<number, readonly Vec[]>, wide: number, sizeMm: number): Polygon {
  const ways = [1, -1, wide, -wide, wide + 1, wide - 1, 1 - wide, -1 - wide];
  const border = [...cells].filter(([k]) => ways.some((d) => !cells.has(k + d))).flatMap(([, list]) => convexHull(list));
  for (const times of [1, 2, 6]) {
    const outline = rolledOutline(border, times * DISC_RADIUS * sizeMm);
    if (outline) return outline;
  }
  return convexHull(border);
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
