import { factorPacked, packedRows, sumPacked, timesPacked } from '../geometry/index.js';
import { Memo } from '../ground/index.js';
import { paneOfFew, type SightCheck } from './few-sights.js';
import { addOuter, rowOf, smoothPriors, type Rows, type SmoothPrior } from './pane-prior.js';
import type { Sight } from './sight.js';
import { splineSurface, type SplineBox } from './spline.js';
import type { CurvedSurface } from './surface.js';

/** A smooth pane as the measures leave it. */
export interface PaneFit {
  readonly box: SplineBox;
  readonly coefficients: Float64Array;
  readonly covariance: readonly Float64Array[];
  readonly surface: CurvedSurface;
  readonly checks: readonly SightCheck[];
  /** How likely the lower or the upper edge is bent once more; points that lie close are not asked. */
  readonly bendFrac: number;
}

/** Cells of the spline each way. @source house rule: a bend over an eighth of the height is followed */
const CELLS = 8;
/** So many sights are looked through one by one. */
const FEW = 100;

/**
 * The smooth pane that fits what was measured, and how sure it is.
 *
 * Its height is a sum of cubic B-splines, all of them beforehand as likely as a pane's curvature is likely to change over it, with edges that may bend; so few
 * bows give a dish and many give what they say. How stiff the pane is and which edges bend comes from the measures themselves. A sight that all the
 * others contradict is left out and named.
 * @param paneBox box of the pane with the room round it, that every sight lies in
 * @param sights bows, or the cells of a cloud, which has been sifted before: beyond a hundred none is looked at for slips
 * @param turnsIn edges that somebody saw turn in sharply: they do bend
 * @source Gaussian process with a thin-plate prior of third order; stiffness, bends and slips by evidence: MacKay, Information Theory, Inference, and
 *   Learning Algorithms, ch. 28 and 45; deleted residuals: Cook & Weisberg, Residuals and Influence in Regression, 2.2 (both from memory)
 */
export function fitPane(
  paneBox: { minX: number; minY: number; maxX: number; maxY: number },
  sights: readonly Sight[],
  turnsIn: readonly ('lower' | 'upper')[] = [],
  memo = new Memo(),
  cells = CELLS,
): PaneFit {
  const box: SplineBox = { ...paneBox, nx: cells, ny: cells };
  const rows = sights.map((s) => rowOf(box, s));
  if (sights.length > FEW) {
    const { solution, inverse } = settled(smoothPriors(box, sights, memo), gathered(rows, sights));
    return { box, coefficients: solution, covariance: inverse, surface: splineSurface(box, solution), checks: [], bendFrac: 0 };
  }
  const few = paneOfFew(box, rows, sights, turnsIn, memo);
  return { box, ...few, surface: splineSurface(box, few.coefficients) };
}

/** Points by the hundred settle how stiff the pane is. */
function settled(priors: readonly (SmoothPrior & { belief: number })[], told: Told): { solution: Float64Array; inverse: Float64Array[] } {
  const looks = priors.map((p) => {
    const after = factorPacked(sumPacked(p.rows, told.normal, 1));
    const solution = after.solve(told.right);
    // log evidence but for what no stiffness changes
    const misfit = told.squares - timesPacked(told.right, solution);
    return { after, solution, evidence: 0.5 * (p.factor.lnDeterminant - after.lnDeterminant - misfit) + p.belief };
  });
  const best = looks.reduce((a, b) => (b.evidence > a.evidence ? b : a));
  return { solution: best.solution, inverse: best.after.inverse() };
}

/** What the sights say together. */
interface Told {
  readonly normal: Rows;
  readonly right: Float64Array;
  readonly squares: number;
}
function gathered(rows: Rows, sights: readonly Sight[]): Told {
  const n = rows[0]?.length ?? 0;
  const normal = packedRows(n);
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
