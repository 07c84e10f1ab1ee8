import type { Sight } from './sight.js';
import { factorPacked, packedRows, sumPacked, timesPacked, type Factor } from '../geometry/index.js';
import { shelf, type Memo } from '../ground/index.js';
import { addDerivative, curvatureChange, splineAt, splineCount, type SplineBox } from './spline.js';

// What is known of any pane of glass before it is measured, as a prior on the coefficients of its spline.

/** A square matrix, or several vectors, as rows. */
export type Rows = Float64Array[];

/** Room round a pane in which it is taken to run on, mm: what lies behind a seal is glass too. */
export const ROOM_MM = 60;

/** What is known of any pane before it is measured. @source house rule */
const KNOWN = {
  /** Mean curvature each way: a radius under 0.3 m is rare, 1/mm. */
  curvature: 1 / 300,
  /** Mean twist: 3 cm at the corner of 1 m by 1 m, 1/mm. */
  twist: 3e-5,
  /** How far a bow may differ from one place to the next: share of the bows, and mm besides. */
  bowChangeFrac: 0.25,
  bowChangeMm: 0.5,
};
/** Stiffnesses tried: whole powers of ten, so many to either side of what is usual; each decade off is as unlikely as one sigma. */
const DECADES = 2;
/** What a sight reads of each spline. */
export const rowOf = (box: SplineBox, sight: Pick<Sight, 'terms'>): Float64Array => {
  const row = new Float64Array(splineCount(box));
  for (const t of sight.terms) addDerivative(row, splineAt(box, t.x, t.y), 0, 0, t.factor);
  return row;
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
function loosely(b: SplineBox, pin: number): Rows {
  const n = splineCount(b);
  const out = packedRows(n);
  for (const [x, y] of [
    [b.minX, b.minY],
    [b.maxX, b.minY],
    [b.minX, b.maxY],
  ] as const)
    addOuter(out, rowOf(b, { terms: [{ x, y, factor: 1 }] }), pin);
  addOuter(out, meanRow(b, 2, 0), 1 / KNOWN.curvature ** 2);
  addOuter(out, meanRow(b, 0, 2), 1 / KNOWN.curvature ** 2);
  addOuter(out, meanRow(b, 1, 1), 1 / KNOWN.twist ** 2);
  return out;
}

/**
 * How tightly three corners are held at no height, 1/mm². Bows know no plane: something has to say where it lies, and nothing comes of it. Points of a cloud
 * do know: held as tightly, the corners would be three false measurements that bend the pane (they took 1 to 6 % of the slack), so there they are as good as free.
 */
const PIN = { bows: 1e2, points: 1e-8 };

/** What rounding may take off a diagonal of 1, many times over; still far below the least that a pane of any proportion has. */
const ROUNDING = 1e-12;

/** Brought to a mean diagonal of 1: only its shape matters. On a pane forty times as long as high what is left of it along the pane drowns in rounding: a trace is added. */
function evened(m: Rows): Rows {
  const mean = m.reduce((s, row, i) => s + row[i]!, 0) / m.length;
  const out = sumPacked(m, m, 1 / mean - 1);
  out.forEach((row, i) => (row[i]! += ROUNDING));
  return out;
}

/** A prior of one stiffness, taken apart. */
export interface SmoothPrior {
  readonly rows: Rows;
  readonly factor: Factor;
  readonly inverse: () => Rows;
}

/** What depends on the box alone: kept, since a survey goes on in the same box from bow to bow. */
interface Ladder {
  readonly rung: (decade: number) => SmoothPrior;
}
const ladders = shelf<Ladder>(2);
const ladderOf = (b: SplineBox, pin: number, memo: Memo): Ladder =>
  memo.once(ladders, [b.minX, b.minY, b.maxX, b.maxY, b.nx, b.ny, pin].join(' '), () => newLadder(b, pin));

function newLadder(b: SplineBox, pin: number): Ladder {
  const change = evened(curvatureChange(b));
  const loose = loosely(b, pin);
  const rungs = new Map<number, SmoothPrior>();
  const rung = (decade: number): SmoothPrior => {
    const before = rungs.get(decade);
    if (before) return before;
    const rows = sumPacked(loose, change, 10 ** decade);
    const factor = factorPacked(rows);
    let inverse: Rows | null = null;
    const made = { rows, factor, inverse: () => (inverse ??= factor.inverse()) };
    rungs.set(decade, made);
    return made;
  };
  return { rung };
}

/** Stiffness, as a power of ten, at which bows one third of the height apart differ as much as is usual. */
function usualDecade(b: SplineBox, { rung }: Ladder, sights: readonly Sight[]): number {
  const [low, mid, high] = [0.1, 0.5, 0.9].map((k) => bowRow(b, b.minY + k * (b.maxY - b.minY)));
  const row = mid!.map((v, i) => v - (low![i]! + high![i]!) / 2);
  const spread = timesPacked(row, rung(0).factor.solve(row));
  return Math.log10(spread / (KNOWN.bowChangeFrac * typicalBow(sights) + KNOWN.bowChangeMm) ** 2);
}

/** Panes of every stiffness that is tried, and how likely each is beforehand (ln). */
export function smoothPriors(box: SplineBox, sights: readonly Sight[], memo: Memo): (SmoothPrior & { readonly belief: number })[] {
  const ladder = ladderOf(box, sights.some((s) => s.terms.length === 1) ? PIN.points : PIN.bows, memo);
  const usual = usualDecade(box, ladder, sights);
  return Array.from({ length: 2 * DECADES + 1 }, (_, i) => {
    const decade = Math.round(usual) + i - DECADES;
    return { ...ladder.rung(decade), belief: -((decade - usual) ** 2) / 2 };
  });
}

/** Depth of bows, or half of what points rise and fall, mm. */
export function typicalBow(sights: readonly Sight[]): number {
  const values = sights.map((s) => s.valueMm);
  return sights.some((s) => s.terms.length > 1)
    ? Math.sqrt(values.reduce((s, v) => s + v * v, 0) / Math.max(1, values.length))
    : (Math.max(...values) - Math.min(...values)) / 2;
}

/** Depth of a bow from the lower edge to the upper, mm: of long upright straightedges, brought to the whole height; without any a quarter of a typical bow. */
export function uprightBow(b: SplineBox, sights: readonly Sight[]): number {
  const height = b.maxY - b.minY - 2 * ROOM_MM;
  const bows = sights.flatMap(({ terms, valueMm }) => {
    const [from, to] = [terms[1], terms[2]];
    if (!from || !to || Math.abs(from.x - to.x) > 1) return [];
    const long = Math.abs(to.y - from.y);
    return long > 0.6 * height ? [valueMm * (height / long) ** 2] : [];
  });
  return bows.length ? Math.sqrt(bows.reduce((s, v) => s + v * v, 0) / bows.length) : typicalBow(sights) / 4;
}
