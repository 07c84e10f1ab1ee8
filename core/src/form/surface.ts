/** A point or direction in space, mm. */
export type Vec3 = readonly [number, number, number];

/** A surface near one point: where it is, and its first and second derivatives by the parameters. */
export interface SurfacePoint {
  readonly r: Vec3;
  readonly ru: Vec3;
  readonly rv: Vec3;
  readonly ruu: Vec3;
  readonly ruv: Vec3;
  readonly rvv: Vec3;
}

/**
 * A smooth pane: two parameters to a point in space, twice differentiable. For glass measured by bows the parameters are mm to the right and
 * mm up in the plane of its chords. Curvature and metric do not depend on that; what follows threads and asks what lies on the pane does (`thread.ts` steps,
 * `within.ts` tells an edge by a millionth of a mm): there both parameters are mm.
 */
export interface CurvedSurface {
  at(u: number, v: number): SurfacePoint;
  /** Where the surface is a height over its plane: the same, told shortly. */
  readonly height?: (x: number, y: number) => Height;
  /** Then also its slopes and bends alone, z_x, z_y, z_xx, z_xy, z_yy written into the first of six numbers: threads are followed by it, a hundred thousand times for a plan. */
  readonly slopes?: Slopes;
}
export type Slopes = (x: number, y: number, into: Float64Array) => void;

export const dot3 = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vec3, b: Vec3): Vec3 => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

/** A height above the plane with its derivatives. */
export interface Height {
  readonly z: number;
  readonly zx: number;
  readonly zy: number;
  readonly zxx: number;
  readonly zxy: number;
  readonly zyy: number;
}

const slopesOf =
  (height: (x: number, y: number) => Height): Slopes =>
  (x, y, into) => {
    const { zx, zy, zxx, zxy, zyy } = height(x, y);
    into[0] = zx;
    into[1] = zy;
    into[2] = zxx;
    into[3] = zxy;
    into[4] = zyy;
  };

/** A pane as a height (mm) over its plane. @param slopes the same without its height, where that can be had more cheaply */
export function heightSurface(height: (x: number, y: number) => Height, slopes: Slopes = slopesOf(height)): CurvedSurface {
  return {
    height,
    slopes,
    at(x, y) {
      const h = height(x, y);
      return { r: [x, y, h.z], ru: [1, 0, h.zx], rv: [0, 1, h.zy], ruu: [0, 0, h.zxx], ruv: [0, 0, h.zxy], rvv: [0, 0, h.zyy] };
    },
  };
}

/**
 * The parabolic dish that has these bows at the middle of its width and height.
 * @param horizontalBowMm depth of a straightedge across the width, at its middle; vertical likewise; opposite signs make a saddle
 */
export function dishByBows(widthMm: number, horizontalBowMm: number, heightMm: number, verticalBowMm: number): CurvedSurface {
  const [a, b] = [(4 * horizontalBowMm) / widthMm ** 2, (4 * verticalBowMm) / heightMm ** 2];
  return heightSurface((x, y) => ({ z: a * x * x + b * y * y, zx: 2 * a * x, zy: 2 * b * y, zxx: 2 * a, zxy: 0, zyy: 2 * b }));
}

/** First fundamental form and Gaussian curvature at a point. */
export interface Metric {
  readonly e: number;
  readonly f: number;
  readonly g: number;
  /** Of the first form: area² per parameter area². */
  readonly det: number;
  /** Gaussian curvature, 1/mm². */
  readonly curvature: number;
}

/** @source do Carmo, Differential Geometry of Curves and Surfaces, 3-3 (from memory) @throws RangeError where the parameters fold over */
export function metricOf(p: SurfacePoint): Metric {
  const [e, f, g] = [dot3(p.ru, p.ru), dot3(p.ru, p.rv), dot3(p.rv, p.rv)];
  const det = e * g - f * f;
  if (!(det > 0)) throw new RangeError('The surface has no tangent plane here: its parameters fold over.');
  // the second form by the unnormalised normal: its square is det
  const n = cross(p.ru, p.rv);
  const [l, m, k] = [dot3(p.ruu, n), dot3(p.ruv, n), dot3(p.rvv, n)];
  return { e, f, g, det, curvature: (l * k - m * m) / (det * det) };
}
