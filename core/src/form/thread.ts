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

/** Share of its width that film has to lose where a thread has come to; below 0 it would have to stretch. @source docs/models/shrink.md */
export const lossFrac = (p: Pick<ThreadPoint, 'widthRatio'>): number => 1 - p.widthRatio;

/** u, v, du, dv, J, J' in six numbers; and what they change by along the thread. */
type Rates = (y: Float64Array, out: Float64Array) => void;

/**
 * u'' and v'' of a geodesic, and J'' = −K J beside it. The acceleration of a geodesic is normal to the surface: its tangential part vanishes.
 * @source do Carmo, Differential Geometry of Curves and Surfaces, 4-4 (geodesics) and 5-5 (Jacobi fields) (from memory)
 */
function ratesOf(surface: CurvedSurface): Rates {
  const { slopes } = surface;
  if (slopes) {
    const six = new Float64Array(6);
    return (y, out) => {
      slopes(y[0]!, y[1]!, six);
      // of a height z(x, y): x'' = −z_x q / w, y'' = −z_y q / w with q = z'' along the way, w = 1 + z_x² + z_y²
      const zx = six[0]!;
      const zy = six[1]!;
      const zxx = six[2]!;
      const zxy = six[3]!;
      const zyy = six[4]!;
      const du = y[2]!;
      const dv = y[3]!;
      const w = 1 + zx * zx + zy * zy;
      const q = (zxx * du * du + 2 * zxy * du * dv + zyy * dv * dv) / w;
      out[0] = du;
      out[1] = dv;
      out[2] = -zx * q;
      out[3] = -zy * q;
      out[4] = y[5]!;
      out[5] = (-(zxx * zyy - zxy * zxy) / (w * w)) * y[4]!;
    };
  }
  return (y, out) => {
    const p = surface.at(y[0]!, y[1]!);
    const [du, dv] = [y[2]!, y[3]!];
    const { e, f, g, det, curvature } = metricOf(p);
    const along = (k: 0 | 1 | 2) => p.ruu[k] * du * du + 2 * p.ruv[k] * du * dv + p.rvv[k] * dv * dv;
    const bend = [along(0), along(1), along(2)] as const;
    const [bu, bv] = [dot3(p.ru, bend), dot3(p.rv, bend)];
    out.set([du, dv, -(g * bu - f * bv) / det, -(e * bv - f * bu) / det, y[5]!, -curvature * y[4]!]);
  };
}

/** Steps of the classical Runge–Kutta method: their error falls with the fourth power of the step. */
function stepper(surface: CurvedSurface): (y: Float64Array, h: number, to: Float64Array) => void {
  const rates = ratesOf(surface);
  const [k1, k2, k3, k4, at] = [new Float64Array(6), new Float64Array(6), new Float64Array(6), new Float64Array(6), new Float64Array(6)];
  return (y, h, to) => {
    rates(y, k1);
    for (let i = 0; i < 6; i++) at[i] = y[i]! + (h / 2) * k1[i]!;
    rates(at, k2);
    for (let i = 0; i < 6; i++) at[i] = y[i]! + (h / 2) * k2[i]!;
    rates(at, k3);
    for (let i = 0; i < 6; i++) at[i] = y[i]! + h * k3[i]!;
    rates(at, k4);
    for (let i = 0; i < 6; i++) to[i] = y[i]! + (h / 6) * (k1[i]! + 2 * k2[i]! + 2 * k3[i]! + k4[i]!);
  };
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
  /** J' at the anchor: minus its geodesic curvature, 1/mm; 0 for an anchor that is itself a geodesic. */
  readonly widthSlope: number;
}

/**
 * Lays a thread of film from a point straight on (a geodesic) and tells at every step how near its neighbour has come: film shrinks there by
 * `1 − widthRatio`. Ends where the thread leaves `isIn` (found to a thousandth of a step), or after `mostMm`.
 */
export function layThread(surface: CurvedSurface, from: At, way: Way, { stepMm, mostMm, isIn, widthSlope }: ThreadOptions): ThreadPoint[] {
  const unit = unitWay(surface.at(from.u, from.v), way);
  const step = stepper(surface);
  const y = Float64Array.of(from.u, from.v, unit.du, unit.dv, 1, widthSlope);
  const next = new Float64Array(6);
  const isOn = (x: Float64Array) => isIn({ u: x[0]!, v: x[1]! });
  let s = 0;
  const points: ThreadPoint[] = [];
  const tell = () => points.push({ sMm: s, u: y[0]!, v: y[1]!, du: y[2]!, dv: y[3]!, widthRatio: y[4]! });
  tell();
  if (!isOn(y)) return points;
  while (s < mostMm - 1e-9) {
    let h = Math.min(stepMm, mostMm - s);
    step(y, h, next);
    const isLast = !isOn(next);
    if (isLast) {
      let [low, high] = [0, h];
      for (let i = 0; i < 10; i++) {
        const half = (low + high) / 2;
        step(y, half, next);
        if (isOn(next)) low = half;
        else high = half;
      }
      if (low === 0) return points;
      h = low;
      step(y, h, next);
    }
    y.set(next);
    s += h;
    tell();
    if (isLast) return points;
  }
  return points;
}

/** Numbers of one point of a thread that is only run along: s, u, v, du, dv, J. */
export const RUN = 6;
/** A thread as it is run along; used again for the next one. */
export interface Run {
  points: Float64Array;
  count: number;
}
export const newRun = (): Run => ({ points: new Float64Array(RUN * 128), count: 0 });

/** Where a thread is run along, in the parameters of the surface. */
export interface RunBox {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/**
 * The same for whoever looks for an edge of his own: in whole steps up to the first point past a box, nothing made on the way.
 * @returns runs a thread from a point in a way of unit length
 */
export function threadRunner(surface: CurvedSurface, box: RunBox, stepMm: number): (run: Run, u: number, v: number, way: Way, widthSlope: number) => void {
  const step = stepper(surface);
  const y = new Float64Array(6);
  const mostMm = 20 * (box.maxX - box.minX + box.maxY - box.minY);
  return (run, u, v, way, widthSlope) => {
    y[0] = u;
    y[1] = v;
    y[2] = way.du;
    y[3] = way.dv;
    y[4] = 1;
    y[5] = widthSlope;
    run.count = 0;
    for (let s = 0; ; s += stepMm) {
      const o = RUN * run.count++;
      if (o + RUN > run.points.length) {
        const longer = new Float64Array(2 * run.points.length);
        longer.set(run.points);
        run.points = longer;
      }
      const p = run.points;
      p[o] = s;
      for (let i = 0; i < 5; i++) p[o + 1 + i] = y[i]!;
      const isIn = y[0]! >= box.minX && y[0]! <= box.maxX && y[1]! >= box.minY && y[1]! <= box.maxY;
      if (!isIn || s >= mostMm) return;
      step(y, stepMm, y);
    }
  };
}
