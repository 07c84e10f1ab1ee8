import { factorPacked } from '../geometry/index.js';
import { addOuter, bendSigmaOf, BENDS, edgeBends, rowOf, smoothPriors, sum, times, typicalBow, type Rows } from './pane-prior.js';
import type { Sight } from './sight.js';
import { splineSurface, type SplineBox } from './spline.js';
import type { CurvedSurface } from './surface.js';

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
/** A slip of the rule or of the pen: so often, so far. @source house rule, as for tapes */
const SLIP = { frac: 0.02, sigmaMm: 15 };
/** A sight is left out when a slip in it is so likely. */
const OUT_FRAC = 0.8;
/** So many sights are looked through one by one. */
const FEW = 100;

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
  const smooth = smoothPriors(box, sights);
  if (sights.length > FEW) {
    const told = gathered(rows, sights);
    const { solution, inverse } = settled(smooth, told);
    return { box, coefficients: solution, covariance: inverse, surface: splineSurface(box, solution), checks: [] };
  }
  const { coefficients, covariance, checks } = fewSights(smooth, edgeBends(box), rows, sights);
  return { box, coefficients, covariance, surface: splineSurface(box, coefficients), checks };
}

/** A kind of pane as it may be beforehand: how stiff, how freely its edges bend; and what the sights would read of such panes. */
interface Kind {
  readonly belief: number;
  readonly stiff: number;
  readonly bendSigmaMm: number;
  /** Covariance of what the sights would read. */
  readonly spread: readonly Float64Array[];
}

/** Few sights are looked at by what they would read of each kind of pane: that is a small matrix, however fine the spline. */
function fewSights(
  smooth: readonly { belief: number; prior: Rows }[],
  bends: Rows,
  rows: Rows,
  sights: readonly Sight[],
): { coefficients: Float64Array; covariance: Float64Array[]; checks: SightCheck[] } {
  const factors = smooth.map(({ prior }) => factorPacked(prior));
  const typical = typicalBow(sights);
  const bent = rows.map((r) => Float64Array.from(bends, (v) => times(r, v)));
  const ofBends = bent.map((x) => Float64Array.from(bent, (y) => times(x, y)));
  // Σ0 a for every sight, and what two sights have in common by it
  const solved = factors.map((f) => rows.map((r) => f.solve(r)));
  const kinds = smooth.flatMap(({ belief }, stiff): Kind[] => {
    const plain = rows.map((r) => solved[stiff]!.map((v) => times(r, v)));
    return BENDS.map((bend) => {
      const bendSigmaMm = bendSigmaOf(bend.share, typical);
      return {
        belief: belief + bend.belief,
        stiff,
        bendSigmaMm,
        spread: plain.map((row, i) => Float64Array.from(row, (v, j) => v + bendSigmaMm ** 2 * ofBends[i]![j]!)),
      };
    });
  });
  const { out, evidence, checks } = lookForSlips(kinds, sights);
  const all = lnSum(evidence);
  const n = rows[0]!.length;
  const likely = kinds.flatMap((kind, i) => {
    const weight = Math.exp(evidence[i]! - all);
    return weight < 0.02 ? [] : [{ kind, weight }];
  });
  const whole = likely.reduce((s, l) => s + l.weight, 0);
  const values = sights.map((s) => s.valueMm);
  const prior = new Map<number, Float64Array[]>();
  const parts = likely.map(({ kind, weight }) => {
    if (!prior.has(kind.stiff)) prior.set(kind.stiff, factors[kind.stiff]!.inverse());
    const v2 = kind.bendSigmaMm ** 2;
    // cross covariance of coefficients and sights
    const cross = rows.map((_, i) => {
      const c = solved[kind.stiff]![i]!.slice();
      bends.forEach((v, k) => {
        const f = v2 * bent[i]![k]!;
        if (f !== 0) for (let j = 0; j < n; j++) c[j]! += f * v[j]!;
      });
      return c;
    });
    const inverse = factorPacked(withNoise(kind.spread, sights, out)).inverse();
    const weights = inverse.map((row) => times(row, values));
    const mean = new Float64Array(n);
    cross.forEach((c, i) => c.forEach((v, j) => (mean[j]! += weights[i]! * v)));
    return { share: weight / whole, kind, v2, cross, inverse, mean };
  });
  const coefficients = new Float64Array(n);
  for (const p of parts) p.mean.forEach((v, j) => (coefficients[j]! += p.share * v));
  const covariance = Array.from({ length: n }, () => new Float64Array(n));
  for (const p of parts) {
    const base = prior.get(p.kind.stiff)!;
    for (let i = 0; i < n; i++) for (let j = 0, to = covariance[i]!, from = base[i]!; j < n; j++) to[j]! += p.share * from[j]!;
    for (const v of bends) addOuter(covariance, v, p.share * p.v2);
    // less what the sights have told: cross' C⁻¹ cross
    const told = p.cross.map((_, i) => {
      const t = new Float64Array(n);
      p.cross.forEach((c, k) => {
        const f = p.inverse[i]![k]!;
        for (let j = 0; j < n; j++) t[j]! += f * c[j]!;
      });
      return t;
    });
    p.cross.forEach((c, k) => {
      for (let i = 0; i < n; i++) {
        const f = -p.share * c[i]!;
        if (f !== 0) for (let j = 0, to = covariance[i]!, t = told[k]!; j < n; j++) to[j]! += f * t[j]!;
      }
    });
    addOuter(
      covariance,
      Float64Array.from(p.mean, (v, j) => v - coefficients[j]!),
      p.share,
    );
  }
  return { coefficients, covariance, checks };
}

/** What the sights would read, with their own errors; one that is a slip may be off by far more. */
const withNoise = (spread: readonly Float64Array[], sights: readonly Sight[], slips: ReadonlySet<number>): Float64Array[] =>
  spread.map((row, i) => {
    const out = row.slice();
    out[i]! += sights[i]!.sigmaMm ** 2 + (slips.has(i) ? SLIP.sigmaMm ** 2 : 0);
    return out;
  });

/** Points by the hundred settle how stiff the pane is. */
function settled(priors: readonly { belief: number; prior: Rows }[], told: Told): { solution: Float64Array; inverse: Float64Array[] } {
  const evidence = priors.map((p) => evidenceOf(p.prior, told) + p.belief);
  const best = priors[indexOfBest(evidence)]!;
  const factor = factorPacked(sum(best.prior, told.normal, 1));
  return { solution: factor.solve(told.right), inverse: factor.inverse() };
}

const indexOfBest = (list: readonly number[]): number => list.reduce((best, v, i) => (v > list[best]! ? i : best), 0);
const lnSum = (list: readonly number[]): number => {
  const most = Math.max(...list);
  return most + Math.log(list.reduce((s, v) => s + Math.exp(v - most), 0));
};

/**
 * Whether one of few sights is a slip: every sight in turn is taken as read far off, for every kind of pane, and weighed against none being so; the most
 * likely is left out and the rest looked through again.
 */
function lookForSlips(kinds: readonly Kind[], sights: readonly Sight[]): { out: Set<number>; evidence: number[]; checks: SightCheck[] } {
  const values = sights.map((s) => s.valueMm);
  const out = new Set<number>();
  const evidence = (slips: ReadonlySet<number>): number[] =>
    kinds.map(({ spread, belief }) => {
      const f = factorPacked(withNoise(spread, sights, slips));
      return belief - 0.5 * (f.lnDeterminant + times(values, f.solve(values)));
    });
  const most = Math.floor(sights.length / 5);
  let chance = sights.map(() => 0);
  for (;;) {
    const odds = Math.log(SLIP.frac / (1 - SLIP.frac));
    const none = evidence(out);
    const each = sights.map((_, i) => (out.has(i) ? -Infinity : odds + lnSum(evidence(new Set([...out, i])))));
    const all = lnSum([lnSum(none), ...each.filter(Number.isFinite)]);
    const now = each.map((e) => Math.exp(e - all));
    chance = chance.map((was, i) => (out.has(i) ? was : now[i]!));
    const worst = indexOfBest(each);
    if (out.size < most && now[worst]! > OUT_FRAC && sights.length - out.size > 4) out.add(worst);
    else return { out, evidence: none, checks: againstOthers(kinds, sights, out, none, chance) };
  }
}

/** What the sights say together. */
interface Told {
  readonly normal: Rows;
  readonly right: Float64Array;
  readonly squares: number;
}
function gathered(rows: Rows, sights: readonly Sight[]): Told {
  const n = rows[0]?.length ?? 0;
  const normal = Array.from({ length: n }, () => new Float64Array(n));
  const right = new Float64Array(n);
  let squares = 0;
  sights.forEach((s, i) => {
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

/**
 * Each sight against all the others, at every stiffness and by how likely it is.
 * @source leaving one out of a Gaussian process: mean y − [C⁻¹y]/[C⁻¹], variance 1/[C⁻¹] (Rasmussen & Williams, Gaussian Processes for Machine Learning, 5.4.2; from memory)
 */
function againstOthers(
  kinds: readonly Kind[],
  sights: readonly Sight[],
  out: ReadonlySet<number>,
  evidence: readonly number[],
  chance: readonly number[],
): SightCheck[] {
  const all = lnSum(evidence);
  const values = sights.map((s) => s.valueMm);
  const looks = kinds.flatMap(({ spread }, d) => {
    const weight = Math.exp(evidence[d]! - all);
    if (weight < 0.01) return [];
    const inverse = factorPacked(withNoise(spread, sights, out)).inverse();
    return [
      {
        weight,
        of: (i: number) => ({
          mean: values[i]! - times(inverse[i]!, values) / inverse[i]![i]!,
          variance: 1 / inverse[i]![i]! - (out.has(i) ? SLIP.sigmaMm ** 2 : 0),
        }),
      },
    ];
  });
  const whole = looks.reduce((s, l) => s + l.weight, 0);
  return sights.map((s, i): SightCheck => {
    const parts = looks.map((l) => ({ share: l.weight / whole, ...l.of(i) }));
    const expectedMm = parts.reduce((t, p) => t + p.share * p.mean, 0);
    const sigmaMm = Math.sqrt(parts.reduce((t, p) => t + p.share * (p.variance + (p.mean - expectedMm) ** 2), 0));
    return { id: s.id, expectedMm, sigmaMm, off: (s.valueMm - expectedMm) / sigmaMm, slipFrac: chance[i]!, isOut: out.has(i) };
  });
}
