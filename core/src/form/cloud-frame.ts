import { symmetricAxes } from '../geometry/index.js';
import { fail, ok, type Result } from '../ground/index.js';
import type { Points } from './read-cloud.js';
import type { Vec3 } from './surface.js';

/** Units a file may be written in. */
export type CloudUnit = 'mm' | 'm' | 'in';
const mmPer: Record<CloudUnit, number> = { mm: 1, m: 1000, in: 25.4 };
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

/** Points of a cloud as the pane lies: mm, x to the right, y up, z out towards whoever looks at it. */
export interface FlatCloud {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
}

/** The points in a frame. */
export function inFrame(points: Points, f: CloudFrame, unitOfFile: CloudUnit): FlatCloud {
  const n = points.length / 3;
  const scale = mmPer[unitOfFile];
  const [x, y, z] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    const d = sub(pointAt(points, i), f.origin);
    x[i] = scale * dot(d, f.right);
    y[i] = scale * dot(d, f.up);
    z[i] = scale * dot(d, f.out);
  }
  return { x, y, z };
}
