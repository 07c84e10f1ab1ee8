import type { Sight } from './sight.js';
import { factorPacked } from '../geometry/index.js';
import { addDerivative, curvatureChange, splineAt, splineCount, type SplineBox } from './spline.js';

// What is known of any pane of glass before it is measured, as a prior on the coefficients of its spline.

/** A square matrix, or several vectors, as rows. */
export type Rows = Float64Array[];

/** What is known of any pane before it is measured. @source house rule */
const KNOWN = {
  /** Mean curvature each way: a radius under 0.3 m is rare, 1/mm. */
  curvature: 1 / 300,
  /** Mean twist: 3 cm at the corner of 1 m by 1 m, 1/mm. */
  twist: 3e-5,
  /** How far a bow may differ from one place to the next: share of the bows, and mm besides. */
  bowChangeFrac: 0.25,
  bowChangeMm: 0.5,
  /** A bend at an edge that nobody would notice, mm. */
  bendMm: 0.1,
};
/** How strongly panes bend at their edges: as share of a typical bow, and how much that is believed beforehand (ln). @source house rule: most hardly, some abruptly */
export const BENDS = [
  { share: 0.02, belief: Math.log(0.65) },
  { share: 0.35, belief: Math.log(0.35) },
];
/** Stiffnesses tried, as powers of ten about what is usual; each decade off is as unlikely as one sigma. */
const DECADES = [-2, -1, 0, 1, 2];
/** What a sight reads of each spline. */
export const rowOf = (box: SplineBox, sight: Pick<Sight, 'terms'>): Float64Array => {
  const row = new Float64Array(splineCount(box));
  for (const t of sight.terms) addDerivative(row, splineAt(box, t.x, t.y), 0, 0, t.factor);
  return row;
};
export const times = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let s = 0;
  for (let i = 0; i < a.length; i++) s += a[i]! * b[i]!;
  return s;
};
/** to += weight × row' row. */
export const addOuter = (to: Rows, row: Float64Array, weight: number): void => {
  for (let i = 0; i < row.length; i++) {
    const f = row[i]! * weight;
    if (f === 0) continue;
    const line = to[i]!;
    for (let j = 0; j < row.length; j++) line[j]! += f * row[j]!;
  }
};

/** The gap of a level straightedge at a height over the whole box. */
const bowRow = (b: SplineBox, y: number): Float64Array => {
  const row = new Float64Array(splineCount(b));
  addDerivative(row, splineAt(b, (b.minX + b.maxX) / 2, y), 0, 0, 1);
  addDerivative(row, splineAt(b, b.minX, y), 0, 0, -0.5);
  addDerivative(row, splineAt(b, b.maxX, y), 0, 0, -0.5);
  return row;
};

/** Means over the box of a second derivative, by nine by nine places. */
function meanRow(b: SplineBox, dx: number, dy: number): Float64Array {
  const row = new Float64Array(splineCount(b));
  for (let i = 0; i < 9; i++)
    for (let j = 0; j < 9; j++)
      addDerivative(row, splineAt(b, b.minX + ((i + 0.5) / 9) * (b.maxX - b.minX), b.minY + ((j + 0.5) / 9) * (b.maxY - b.minY)), dx, dy, 1 / 81);
  return row;
}

/** What is known beforehand, but for the stiffness: its place in space, mean curvatures, twist. */
function loosely(b: SplineBox): Rows {
  const n = splineCount(b);
  const out = Array.from({ length: n }, () => new Float64Array(n));
  for (const [x, y] of [
    [b.minX, b.minY],
    [b.maxX, b.minY],
    [b.minX, b.maxY],
  ] as const)
    addOuter(out, rowOf(b, { terms: [{ x, y, factor: 1 }] }), 1e2);
  addOuter(out, meanRow(b, 2, 0), 1 / KNOWN.curvature ** 2);
  addOuter(out, meanRow(b, 0, 2), 1 / KNOWN.curvature ** 2);
  addOuter(out, meanRow(b, 1, 1), 1 / KNOWN.twist ** 2);
  return out;
}

/** Brought to a mean diagonal of 1: only its shape matters, and rounding is spared. */
function evened(m: Rows): Rows {
  const mean = m.reduce((s, row, i) => s + row[i]!, 0) / m.length;
  return m.map((row) => row.map((v) => v / mean));
}

export const sum = (a: Rows, b: Rows, factor: number): Rows => a.map((row, i) => row.map((v, j) => v + factor * b[i]![j]!));

/** Stiffness at which bows one third of the height apart differ as much as is usual. */
function usualStiffness(b: SplineBox, unit: Rows, sights: readonly Sight[]): number {
  const [low, mid, high] = [0.1, 0.5, 0.9].map((k) => bowRow(b, b.minY + k * (b.maxY - b.minY)));
  const row = mid!.map((v, i) => v - (low![i]! + high![i]!) / 2);
  const solution = factorPacked(unit).solve(row);
  return times(row, solution) / (KNOWN.bowChangeFrac * typicalBow(sights) + KNOWN.bowChangeMm) ** 2;
}

/** Panes of every stiffness that is tried, and how likely each is beforehand (ln). */
export function smoothPriors(box: SplineBox, sights: readonly Sight[]): { readonly belief: number; readonly prior: Rows }[] {
  const change = evened(curvatureChange(box));
  const loose = loosely(box);
  const usual = usualStiffness(box, sum(loose, change, 1), sights);
  return DECADES.map((d) => ({ belief: -(d ** 2) / 2, prior: sum(loose, change, usual * 10 ** d) }));
}

/** How far an edge is believed to bend, mm (one sigma). */
export const bendSigmaOf = (share: number, typicalMm: number): number => share * typicalMm + KNOWN.bendMm;

/** Depth of bows, or half of what points rise and fall, mm. */
export function typicalBow(sights: readonly Sight[]): number {
  const values = sights.map((s) => s.valueMm);
  return sights.some((s) => s.terms.length > 1)
    ? Math.sqrt(values.reduce((s, v) => s + v * v, 0) / Math.max(1, values.length))
    : (Math.max(...values) - Math.min(...values)) / 2;
}

/** Where an edge may begin to bend, as shares of the way across the pane. */
const BEND_AT = [0.16, 0.3];

/**
 * Ways in which a pane bends towards an edge, as splines: falling off with the square of how far one is past a line along the edge, as strongly all along it, more
 * to one end, or more in the middle. Each falls by 1 mm at the edge.
 */
export function edgeBends(b: SplineBox): Rows {
  const [w, h] = [b.maxX - b.minX, b.maxY - b.minY];
  const along = [(_: number) => 1, (t: number) => t, (t: number) => 1.5 * t * t - 0.5];
  const out: Rows = [];
  for (const at of BEND_AT)
    for (const side of [0, 1, 2, 3])
      for (const shape of along) {
        const isAcross = side < 2;
        const past = (x: number, y: number): number => {
          const [v, size] = isAcross ? [side === 0 ? y - b.minY : b.maxY - y, h] : [side === 2 ? x - b.minX : b.maxX - x, w];
          return Math.max(0, at * size - v) / (at * size);
        };
        const f = (x: number, y: number) => past(x, y) ** 2 * shape(isAcross ? (2 * (x - b.minX)) / w - 1 : (2 * (y - b.minY)) / h - 1);
        out.push(asSpline(b, f));
      }
  return out;
}

/** Coefficients of a spline near a function: its values at the knots less a sixth of their second differences. @source de Boor, ch. XII (quasi-interpolants; from memory) */
function asSpline(b: SplineBox, f: (x: number, y: number) => number): Float64Array {
  const [n, m] = [b.nx + 3, b.ny + 3];
  const [hx, hy] = [(b.maxX - b.minX) / b.nx, (b.maxY - b.minY) / b.ny];
  return Float64Array.from({ length: n * m }, (_, k) => {
    const [x, y] = [b.minX + ((k % n) - 1) * hx, b.minY + (Math.floor(k / n) - 1) * hy];
    const v = f(x, y);
    return v - (f(x - hx, y) + f(x + hx, y) - 2 * v) / 6 - (f(x, y - hy) + f(x, y + hy) - 2 * v) / 6;
  });
}
