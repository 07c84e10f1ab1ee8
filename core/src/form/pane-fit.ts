import { factorPacked } from '../geometry/index.js';
import { addDerivative, curvatureChange, splineAt, splineCount, splineSurface, type SplineBox } from './spline.js';
import type { CurvedSurface } from './surface.js';

/** One thing measured of a smooth pane, as a straight sum of its height at some places: a bow, or a point. */
export interface Sight {
  readonly id: string;
  /** Heights that take part, and how much. */
  readonly terms: readonly { readonly x: number; readonly y: number; readonly factor: number }[];
  readonly valueMm: number;
  readonly sigmaMm: number;
}

/** How a sight agrees with all the others. */
export interface SightCheck {
  readonly id: string;
  /** What the others say it should read, mm, and their standard deviation together with its own. */
  readonly expectedMm: number;
  readonly sigmaMm: number;
  /** (read − expected) / sigma. */
  readonly off: number;
  /** How likely a slip in it is, against no slip in any. */
  readonly slipFrac: number;
  /** Left out: a slip in it is far more likely than none. */
  readonly isOut: boolean;
}

/** A smooth pane as the measures leave it. */
export interface PaneFit {
  readonly box: SplineBox;
  readonly coefficients: Float64Array;
  readonly covariance: readonly Float64Array[];
  readonly surface: CurvedSurface;
  readonly checks: readonly SightCheck[];
}

/** Cells of the spline each way. @source house rule: a bend over an eighth of the height is followed */
const CELLS = 8;
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
/** Stiffnesses tried, as powers of ten about what is usual; each decade off is as unlikely as one sigma. */
const DECADES = [-2, -1, 0, 1, 2];
/** A slip of the rule or of the pen: so often, so far. @source house rule, as for tapes */
const SLIP = { frac: 0.02, sigmaMm: 15 };
/** A sight is left out when a slip in it is so likely. */
const OUT_FRAC = 0.8;

type Rows = Float64Array[];

const rowOf = (box: SplineBox, sight: Pick<Sight, 'terms'>): Float64Array => {
  const row = new Float64Array(splineCount(box));
  for (const t of sight.terms) addDerivative(row, splineAt(box, t.x, t.y), 0, 0, t.factor);
  return row;
};
const times = (a: ArrayLike<number>, b: ArrayLike<number>): number => {
  let s = 0;
  for (let i = 0; i < a.length; i++) s += a[i]! * b[i]!;
  return s;
};
const addOuter = (to: Rows, row: Float64Array, weight: number): void => {
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

const sum = (a: Rows, b: Rows, factor: number): Rows => a.map((row, i) => row.map((v, j) => v + factor * b[i]![j]!));

/**
 * The smooth pane that fits what was measured, and how sure it is.
 *
 * Its height is a sum of cubic B-splines, all of them beforehand as likely as a pane's curvature is likely to change over it; so few bows give a dish
 * and many give what they say. How stiff the pane is comes from the measures themselves. A sight that all the others contradict is left out and named.
 * @param outlineBox box that the pane and every sight lie in
 * @param sights bows, or the cells of a cloud, which has been sifted before: beyond a hundred none is looked at for slips
 * @source Gaussian process with a thin-plate prior of third order, stiffness and slips by evidence: MacKay, Information Theory, Inference, and
 *   Learning Algorithms, ch. 28 and 45; deleted residuals: Cook & Weisberg, Residuals and Influence in Regression, 2.2 (both from memory)
 */
export function fitPane(outlineBox: { minX: number; minY: number; maxX: number; maxY: number }, sights: readonly Sight[], cells = CELLS): PaneFit {
  const box: SplineBox = { ...outlineBox, nx: cells, ny: cells };
  const rows = sights.map((s) => rowOf(box, s));
  const change = evened(curvatureChange(box));
  const loose = loosely(box);
  const usual = usualStiffness(box, sum(loose, change, 1), sights);
  const priors = DECADES.map((d) => ({ belief: -(d ** 2) / 2, prior: sum(loose, change, usual * 10 ** d) }));
  const isFew = sights.length <= 100;
  const few = isFew ? lookForSlips(priors, rows, sights) : null;
  const told = gathered(rows, sights, few?.out ?? new Set());
  const evidence = few ? few.evidence : priors.map((p) => evidenceOf(p.prior, told) + p.belief);
  const { solution, inverse } = mixed(priors, evidence, told);
  const checks = few ? sights.map((s, i) => check(s, rows[i]!, solution, inverse, !few.out.has(s.id), few.slipFrac[i]!)) : [];
  return { box, coefficients: solution, covariance: inverse, surface: splineSurface(box, solution), checks };
}

/** How stiff the pane is stays in doubt: the panes of every stiffness, as far as it is likely, are taken together. */
function mixed(priors: readonly { prior: Rows }[], evidence: readonly number[], told: Told): { solution: Float64Array; inverse: Float64Array[] } {
  const all = lnSum(evidence);
  const likely = priors.flatMap(({ prior }, i) => {
    const weight = Math.exp(evidence[i]! - all);
    return weight < 0.02 ? [] : [{ weight, factor: factorPacked(sum(prior, told.normal, 1)) }];
  });
  const whole = likely.reduce((s, l) => s + l.weight, 0);
  const each = likely.map((l) => ({ share: l.weight / whole, solution: l.factor.solve(told.right), inverse: l.factor.inverse() }));
  if (each.length === 1) return each[0]!;
  const solution = each[0]!.solution.map((_, k) => each.reduce((s, e) => s + e.share * e.solution[k]!, 0));
  const inverse = Array.from(solution, () => new Float64Array(solution.length));
  for (const e of each) {
    const off = e.solution.map((v, k) => v - solution[k]!);
    inverse.forEach((row, i) => row.forEach((_, j) => (row[j]! += e.share * (e.inverse[i]![j]! + off[i]! * off[j]!))));
  }
  return { solution, inverse };
}

const indexOfBest = (list: readonly number[]): number => list.reduce((best, v, i) => (v > list[best]! ? i : best), 0);
const lnSum = (list: readonly number[]): number => {
  const most = Math.max(...list);
  return most + Math.log(list.reduce((s, v) => s + Math.exp(v - most), 0));
};

/**
 * Whether one of few sights is a slip: every sight in turn is taken as read far off, at every stiffness, and weighed against none being so; the most
 * likely is left out and the rest looked through again.
 */
function lookForSlips(
  priors: readonly { belief: number; prior: Rows }[],
  rows: Rows,
  sights: readonly Sight[],
): { out: Set<string>; evidence: number[]; slipFrac: number[] } {
  // what the sights would read of panes as they are beforehand: their covariance at each stiffness
  const spread = priors.map(({ prior }) => {
    const f = factorPacked(prior);
    const solved = rows.map((r) => f.solve(r));
    return rows.map((r) => solved.map((v) => times(r, v)));
  });
  const values = sights.map((s) => s.valueMm);
  const out = new Set<number>();
  const evidence = (slips: ReadonlySet<number>): number[] =>
    spread.map((g, d) => {
      const c = g.map((row, i) => Float64Array.from(row, (v, j) => (i === j ? v + sights[i]!.sigmaMm ** 2 + (slips.has(i) ? SLIP.sigmaMm ** 2 : 0) : v)));
      const f = factorPacked(c);
      return priors[d]!.belief - 0.5 * (f.lnDeterminant + times(values, f.solve(values)));
    });
  const most = Math.floor(sights.length / 5);
  let chance = sights.map(() => 0);
  for (;;) {
    const odds = Math.log(SLIP.frac / (1 - SLIP.frac));
    const none = lnSum(evidence(out));
    const each = sights.map((_, i) => (out.has(i) ? -Infinity : odds + lnSum(evidence(new Set([...out, i])))));
    const all = lnSum([none, ...each.filter(Number.isFinite)]);
    const now = each.map((e) => Math.exp(e - all));
    chance = chance.map((was, i) => (out.has(i) ? was : now[i]!));
    const worst = indexOfBest(each);
    if (out.size < most && now[worst]! > OUT_FRAC && sights.length - out.size > 4) out.add(worst);
    else return { out: new Set([...out].map((i) => sights[i]!.id)), evidence: evidence(out), slipFrac: chance };
  }
}

/** Stiffness at which bows one third of the height apart differ as much as is usual. */
function usualStiffness(b: SplineBox, unit: Rows, sights: readonly Sight[]): number {
  const [low, mid, high] = [0.1, 0.5, 0.9].map((k) => bowRow(b, b.minY + k * (b.maxY - b.minY)));
  const row = mid!.map((v, i) => v - (low![i]! + high![i]!) / 2);
  const solution = factorPacked(unit).solve(row);
  const values = sights.map((s) => s.valueMm);
  const typical = sights.some((s) => s.terms.length > 1)
    ? Math.sqrt(values.reduce((s, v) => s + v * v, 0) / Math.max(1, values.length))
    : (Math.max(...values) - Math.min(...values)) / 2;
  return times(row, solution) / (KNOWN.bowChangeFrac * typical + KNOWN.bowChangeMm) ** 2;
}

/** What the sights say together. */
interface Told {
  readonly normal: Rows;
  readonly right: Float64Array;
  readonly squares: number;
}
function gathered(rows: Rows, sights: readonly Sight[], out: ReadonlySet<string>): Told {
  const n = rows[0]?.length ?? 0;
  const normal = Array.from({ length: n }, () => new Float64Array(n));
  const right = new Float64Array(n);
  let squares = 0;
  sights.forEach((s, i) => {
    if (out.has(s.id)) return;
    const w = 1 / s.sigmaMm ** 2;
    addOuter(normal, rows[i]!, w);
    rows[i]!.forEach((v, k) => (right[k]! += w * v * s.valueMm));
    squares += w * s.valueMm ** 2;
  });
  return { normal, right, squares };
}

/** Log evidence but for what no stiffness changes. */
function evidenceOf(prior: Rows, told: Told): number {
  const after = factorPacked(sum(prior, told.normal, 1));
  const misfit = told.squares - times(told.right, after.solve(told.right));
  return 0.5 * (factorPacked(prior).lnDeterminant - after.lnDeterminant - misfit);
}

/** A sight against all the others: with it in, by its deleted residual; with it out, straight. */
function check(s: Sight, row: Float64Array, solution: Float64Array, inverse: readonly Float64Array[], isIn: boolean, slipFrac: number): SightCheck {
  const fitted = times(row, solution);
  let spread = 0;
  for (let i = 0; i < row.length; i++) if (row[i] !== 0) spread += row[i]! * times(inverse[i]!, row);
  const variance = s.sigmaMm ** 2;
  if (!isIn) {
    const sigma = Math.sqrt(variance + spread);
    return { id: s.id, expectedMm: fitted, sigmaMm: sigma, off: (s.valueMm - fitted) / sigma, slipFrac, isOut: true };
  }
  const free = Math.max(1e-9, 1 - spread / variance);
  const residual = (s.valueMm - fitted) / free;
  const sigma = Math.sqrt(variance / free);
  return { id: s.id, expectedMm: s.valueMm - residual, sigmaMm: sigma, off: residual / sigma, slipFrac, isOut: false };
}
