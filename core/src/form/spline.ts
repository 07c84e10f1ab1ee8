import { packedRows } from '../geometry/index.js';
import { heightSurface, type CurvedSurface, type Height } from './surface.js';

/** A box in the plane of a pane, divided into equal cells: over it lies a smooth height made of cubic B-splines. */
export interface SplineBox {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
  /** Cells across and up. */
  readonly nx: number;
  readonly ny: number;
}

/** Three more coefficients than cells each way. */
export const splineCount = (b: SplineBox): number => (b.nx + 3) * (b.ny + 3);

/** The four cubic pieces over a cell and their first three derivatives by mm. @source de Boor, A Practical Guide to Splines, ch. X (uniform knots; from memory) */
function pieces(t: number, h: number): readonly [readonly number[], readonly number[], readonly number[], readonly number[]] {
  const u = 1 - t;
  return [
    [u ** 3 / 6, (3 * t ** 3 - 6 * t ** 2 + 4) / 6, (-3 * t ** 3 + 3 * t ** 2 + 3 * t + 1) / 6, t ** 3 / 6],
    [-(u ** 2) / 2 / h, (1.5 * t ** 2 - 2 * t) / h, (-1.5 * t ** 2 + t + 0.5) / h, t ** 2 / 2 / h],
    [u / h ** 2, (3 * t - 2) / h ** 2, (1 - 3 * t) / h ** 2, t / h ** 2],
    [-1 / h ** 3, 3 / h ** 3, -3 / h ** 3, 1 / h ** 3],
  ];
}

/** Sixteen splines that are not nothing at a point: which they are, and any derivative of them up to the third each way. */
export interface SplineAt {
  readonly first: number;
  readonly stride: number;
  /** Weights across and up: [derivative][0…3]. */
  readonly x: readonly (readonly number[])[];
  readonly y: readonly (readonly number[])[];
}

/** Beyond the box the outermost cells run on. */
export function splineAt(b: SplineBox, x: number, y: number): SplineAt {
  const [hx, hy] = [(b.maxX - b.minX) / b.nx, (b.maxY - b.minY) / b.ny];
  const [sx, sy] = [(x - b.minX) / hx, (y - b.minY) / hy];
  const i = Math.min(b.nx - 1, Math.max(0, Math.floor(sx)));
  const j = Math.min(b.ny - 1, Math.max(0, Math.floor(sy)));
  return { first: j * (b.nx + 3) + i, stride: b.nx + 3, x: pieces(sx - i, hx), y: pieces(sy - j, hy) };
}

/** Adds `factor` × a derivative (dx times by x, dy times by y) of every spline at the point to a row. */
export function addDerivative(row: Float64Array, at: SplineAt, dx: number, dy: number, factor: number): void {
  const [wx, wy] = [at.x[dx]!, at.y[dy]!];
  for (let j = 0; j < 4; j++) for (let i = 0; i < 4; i++) row[at.first + j * at.stride + i]! += factor * wx[i]! * wy[j]!;
}

/** Turns four neighbouring coefficients into the powers of a cubic on the cell between. */
const powers = [
  [1 / 6, 4 / 6, 1 / 6, 0],
  [-3 / 6, 0, 3 / 6, 0],
  [3 / 6, -6 / 6, 3 / 6, 0],
  [-1 / 6, 3 / 6, -3 / 6, 1 / 6],
] as const;

/** Each cell of a spline as a polynomial, made once: sixteen numbers a cell, powers across within powers up. */
function cellPowers(b: SplineBox, c: ArrayLike<number>): Float64Array {
  const stride = b.nx + 3;
  const table = new Float64Array(16 * b.nx * b.ny);
  const half = new Float64Array(16);
  for (let j = 0; j < b.ny; j++)
    for (let i = 0; i < b.nx; i++) {
      // first across, then up: half as many products
      for (let l = 0; l < 4; l++)
        for (let p = 0; p < 4; p++) {
          let s = 0;
          for (let k = 0; k < 4; k++) s += powers[p]![k]! * c[(j + l) * stride + i + k]!;
          half[4 * l + p] = s;
        }
      for (let q = 0; q < 4; q++)
        for (let p = 0; p < 4; p++) {
          let s = 0;
          for (let l = 0; l < 4; l++) s += powers[q]![l]! * half[4 * l + p]!;
          table[16 * (j * b.nx + i) + 4 * q + p] = s;
        }
    }
  return table;
}

/** Reads z, z_x, z_y, z_xx, z_xy, z_yy of a spline into six numbers; plain variables, no arrays made. */
function splineReader(b: SplineBox, c: ArrayLike<number>): (x: number, y: number, into: Float64Array) => void {
  const table = cellPowers(b, c);
  const [hx, hy] = [(b.maxX - b.minX) / b.nx, (b.maxY - b.minY) / b.ny];
  const [kx, ky] = [1 / hx, 1 / hy];
  const { minX, minY, nx, ny } = b;
  return (x, y, into) => {
    const sx = (x - minX) * kx;
    const sy = (y - minY) * ky;
    const i = Math.min(nx - 1, Math.max(0, Math.floor(sx)));
    const j = Math.min(ny - 1, Math.max(0, Math.floor(sy)));
    const t = sx - i;
    const u = sy - j;
    let z = 0;
    let zx = 0;
    let zxx = 0;
    let zy = 0;
    let zxy = 0;
    let zyy = 0;
    for (let o = 16 * (j * nx + i) + 12, q = 0; q < 4; q++, o -= 4) {
      const a1 = table[o + 1]!;
      const a2 = table[o + 2]!;
      const a3 = table[o + 3]!;
      zyy = zyy * u + 2 * zy;
      zy = zy * u + z;
      z = z * u + table[o]! + t * (a1 + t * (a2 + t * a3));
      zxy = zxy * u + zx;
      zx = zx * u + a1 + t * (2 * a2 + 3 * t * a3);
      zxx = zxx * u + 2 * a2 + 6 * t * a3;
    }
    into[0] = zx * kx;
    into[1] = zy * ky;
    into[2] = zxx * kx * kx;
    into[3] = zxy * kx * ky;
    into[4] = zyy * ky * ky;
    into[5] = z;
  };
}

/** A spline with these coefficients as a surface. */
export function splineSurface(b: SplineBox, c: ArrayLike<number>): CurvedSurface {
  const read = splineReader(b, c);
  const six = new Float64Array(6);
  return heightSurface((x, y) => {
    read(x, y, six);
    return { zx: six[0]!, zy: six[1]!, zxx: six[2]!, zxy: six[3]!, zyy: six[4]!, z: six[5]! };
  }, read);
}

/** Height and derivatives of a spline with these coefficients. */
export const splineHeight = (b: SplineBox, c: ArrayLike<number>): ((x: number, y: number) => Height) => splineSurface(b, c).height!;

/** Gauss–Legendre points and weights on [0, 1]: exact to the seventh power. @source Abramowitz & Stegun 25.4.29 (from memory) */
const gauss = [
  [0.06943184420297371, 0.17392742256872692],
  [0.33000947820757187, 0.326072577431273],
  [0.6699905217924281, 0.326072577431273],
  [0.9305681557970263, 0.17392742256872692],
] as const;

/** ∫ of the products of one derivative of the splines along one side, n cells of h mm. */
function gram(n: number, h: number, derivative: number): Float64Array[] {
  const out = packedRows(n + 3);
  for (const [t, w] of gauss) {
    const p = pieces(t, h)[derivative as 0]!;
    for (let c = 0; c < n; c++) for (let i = 0; i < 4; i++) for (let j = 0; j < 4; j++) out[c + i]![c + j]! += w * h * p[i]! * p[j]!;
  }
  return out;
}

/**
 * How much a spline changes its curvature: ∫ z_xxx² + 3 z_xxy² + 3 z_xyy² + z_yyy², as a symmetric matrix of its coefficients. Nothing for
 * planes, dishes, cylinders and saddles of one curvature all over; turning the pane does not change it.
 */
export function curvatureChange(b: SplineBox): Float64Array[] {
  const across = [0, 1, 2, 3].map((d) => gram(b.nx, (b.maxX - b.minX) / b.nx, d));
  const up = [0, 1, 2, 3].map((d) => gram(b.ny, (b.maxY - b.minY) / b.ny, d));
  const n = splineCount(b);
  const w = b.nx + 3;
  const out = packedRows(n);
  for (let r = 0; r < n; r++) {
    const [i, j] = [r % w, Math.floor(r / w)];
    for (let l = Math.max(0, j - 3); l <= Math.min(b.ny + 2, j + 3); l++)
      for (let k = Math.max(0, i - 3); k <= Math.min(b.nx + 2, i + 3); k++) {
        let s = 0;
        for (let d = 0; d < 4; d++) s += (d === 0 || d === 3 ? 1 : 3) * across[3 - d]![i]![k]! * up[d]![j]![l]!;
        out[r]![l * w + k] = s;
      }
  }
  return out;
}
