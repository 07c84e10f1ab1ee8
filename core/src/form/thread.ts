import { dot3, metricOf, type CurvedSurface, type SurfacePoint } from './surface.js';

/** A point of a pane by its parameters. */
export interface At {
  readonly u: number;
  readonly v: number;
}
/** A direction on the pane by its parameters; of any length but nothing. */
export interface Way {
  readonly du: number;
  readonly dv: number;
}

/** One point of a thread of film laid on the pane. */
export interface ThreadPoint extends At, Way {
  /** Along the thread from the anchor line, mm. */
  readonly sMm: number;
  /** Width between this thread and its neighbour, over that at the anchor line: the Jacobi field J. */
  readonly widthRatio: number;
}

type State = readonly [u: number, v: number, du: number, dv: number, j: number, dj: number];

/**
 * u'' and v'' of a geodesic, and J'' = −K J beside it. The acceleration of a geodesic is normal to the surface: its tangential part vanishes.
 * @source do Carmo, Differential Geometry of Curves and Surfaces, 4-4 (geodesics) and 5-5 (Jacobi fields) (from memory)
 */
function slope(surface: CurvedSurface, [u, v, du, dv, j, dj]: State): State {
  if (surface.height) {
    // of a height z(x, y): x'' = −z_x q / w, y'' = −z_y q / w with q = z'' along the way, w = 1 + z_x² + z_y²
    const { zx, zy, zxx, zxy, zyy } = surface.height(u, v);
    const w = 1 + zx * zx + zy * zy;
    const q = (zxx * du * du + 2 * zxy * du * dv + zyy * dv * dv) / w;
    return [du, dv, -zx * q, -zy * q, dj, (-(zxx * zyy - zxy * zxy) / (w * w)) * j];
  }
  const p = surface.at(u, v);
  const { e, f, g, det, curvature } = metricOf(p);
  const along = (k: 0 | 1 | 2) => p.ruu[k] * du * du + 2 * p.ruv[k] * du * dv + p.rvv[k] * dv * dv;
  const bend = [along(0), along(1), along(2)] as const;
  const [bu, bv] = [dot3(p.ru, bend), dot3(p.rv, bend)];
  return [du, dv, -(g * bu - f * bv) / det, -(e * bv - f * bu) / det, dj, -curvature * j];
}

const plus = (y: State, k: State, h: number): State => [y[0] + h * k[0], y[1] + h * k[1], y[2] + h * k[2], y[3] + h * k[3], y[4] + h * k[4], y[5] + h * k[5]];

/** One step of the classical Runge–Kutta method: its error falls with the fourth power of the step. */
function stepOn(surface: CurvedSurface, y: State, h: number): State {
  const k1 = slope(surface, y);
  const k2 = slope(surface, plus(y, k1, h / 2));
  const k3 = slope(surface, plus(y, k2, h / 2));
  const k4 = slope(surface, plus(y, k3, h));
  const sum = (i: 0 | 1 | 2 | 3 | 4 | 5): number => y[i] + (h / 6) * (k1[i] + 2 * k2[i] + 2 * k3[i] + k4[i]);
  return [sum(0), sum(1), sum(2), sum(3), sum(4), sum(5)];
}

/** The same way with a length of 1 mm on the pane. @throws RangeError for no way at all */
export function unitWay(p: SurfacePoint, { du, dv }: Way): Way {
  const { e, f, g } = metricOf(p);
  const length = Math.sqrt(e * du * du + 2 * f * du * dv + g * dv * dv);
  if (!(length > 0)) throw new RangeError('A thread needs a direction.');
  return { du: du / length, dv: dv / length };
}

/** A unit way turned by a right angle, anticlockwise as (u, v) are drawn. */
export function acrossWay(p: SurfacePoint, { du, dv }: Way): Way {
  const { e, f, g, det } = metricOf(p);
  const root = Math.sqrt(det);
  return { du: -(f * du + g * dv) / root, dv: (e * du + f * dv) / root };
}

/** How a thread is followed. */
export interface ThreadOptions {
  readonly stepMm: number;
  readonly mostMm: number;
  /** The thread is followed as long as it is in here. */
  readonly isIn: (at: At) => boolean;
  /** Ends with the first point past `isIn` instead of on its border: whoever looks for an edge of his own in between needs no more. */
  readonly runsPast?: boolean;
  /** J' at the anchor: minus its geodesic curvature, 1/mm; 0 for an anchor that is itself a geodesic. */
  readonly widthSlope: number;
}

/**
 * Lays a thread of film from a point straight on (a geodesic) and tells at every step how near its neighbour has come: film shrinks there by
 * `1 − widthRatio`. Ends where the thread leaves `isIn` (found to a thousandth of a step), or after `mostMm`.
 */
export function layThread(surface: CurvedSurface, from: At, way: Way, options: ThreadOptions): ThreadPoint[] {
  const unit = unitWay(surface.at(from.u, from.v), way);
  let y: State = [from.u, from.v, unit.du, unit.dv, 1, options.widthSlope];
  let s = 0;
  const told = (): ThreadPoint => ({ sMm: s, u: y[0], v: y[1], du: y[2], dv: y[3], widthRatio: y[4] });
  const points = [told()];
  const isIn = (x: State) => options.isIn({ u: x[0], v: x[1] });
  if (!isIn(y)) return points;
  while (s < options.mostMm - 1e-9) {
    const h = Math.min(options.stepMm, options.mostMm - s);
    const next = stepOn(surface, y, h);
    if (!isIn(next)) {
      if (options.runsPast) {
        [y, s] = [next, s + h];
        points.push(told());
        return points;
      }
      let [low, high] = [0, h];
      for (let i = 0; i < 10; i++) {
        const half = (low + high) / 2;
        if (isIn(stepOn(surface, y, half))) low = half;
        else high = half;
      }
      if (low > 0) [y, s] = [stepOn(surface, y, low), s + low];
      if (low > 0) points.push(told());
      return points;
    }
    [y, s] = [next, s + h];
    points.push(told());
  }
  return points;
}
