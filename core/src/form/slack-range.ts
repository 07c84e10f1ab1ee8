import type { BowPlace } from '@yellow-pane/contracts';
import { addPacked, applyPacked, boundingBox, packedRows, sumPacked, timesPacked, uprightSpanAt, type Polygon } from '../geometry/index.js';
import { BOW_SIGMA_MM, bowTerms } from './bow-sights.js';
import { heightOn, type LinePoint } from './anchor-line.js';
import type { PaneFit } from './pane-fit.js';
import { addDerivative, splineAt, splineCount } from './spline.js';
import { lengthOf, straightedgeOf } from './pane-outline.js';

/** Which edge the slack hangs from. */
export type EdgeSide = 'above' | 'below';

/** Slack as a quadratic form of the coefficients of the pane: c' Q c. */
export interface SlackForm {
  readonly matrix: readonly Float64Array[];
}

/** Places that are summed over: so wide at most, and so many between line and edge. Curvature changes from cell to cell of the spline only. */
const COLUMN_MM = 60;
const ROWS = 8;

/**
 * The slack along an edge in leading order: over every place between line and edge its Gaussian curvature, times how far the edge still is, since a thread
 * that is bent together there runs on so far. Curvature is a product of second derivatives of the height, so slack is a quadratic form of the
 * coefficients; how steep the pane stands is taken as fitted.
 * @param across only the part of the edge between these places, mm from the lower left corner
 * @source J'' = −K J to first order: J(s) = 1 − ∫ (s − t) K dt; docs/models/shrink.md
 */
export function slackForm(fit: PaneFit, outline: Polygon, line: readonly LinePoint[], side: EdgeSide, across?: readonly [number, number]): SlackForm {
  const n = splineCount(fit.box);
  const matrix = packedRows(n);
  const box = boundingBox(outline);
  const [from, to] = across ?? [box.minX, box.maxX];
  const columns = Math.max(4, Math.min(24, Math.ceil((to - from) / COLUMN_MM)));
  const dx = (to - from) / columns;
  const [slopes, five] = [fit.surface.slopes!, new Float64Array(6)];
  const [wxx, wyy, wxy] = [new Float64Array(16), new Float64Array(16), new Float64Array(16)];
  const places = new Int32Array(16);
  for (let i = 0; i < columns; i++) {
    const x = from + (i + 0.5) * dx;
    const [edges, start] = [uprightSpanAt(outline, x), heightOn(line, x)];
    if (edges === null) continue;
    const reach = side === 'above' ? edges[1] - start : start - edges[0];
    if (reach <= 0) continue;
    for (let j = 0; j < ROWS; j++) {
      const t = (j + 0.5) / ROWS;
      const y = side === 'above' ? start + t * reach : start - t * reach;
      const at = splineAt(fit.box, x, y);
      slopes(x, y, five);
      const steep = 1 + five[0]! ** 2 + five[1]! ** 2;
      const weight = ((1 - t) * reach * (reach / ROWS) * dx) / (steep * steep);
      for (let k = 0; k < 16; k++) {
        const p = k & 3;
        const q = k >> 2;
        places[k] = at.first + q * at.stride + p;
        wxx[k] = at.x[2]![p]! * at.y[0]![q]!;
        wyy[k] = at.x[0]![p]! * at.y[2]![q]!;
        wxy[k] = at.x[1]![p]! * at.y[1]![q]!;
      }
      for (let p = 0; p < 16; p++) {
        // only the half on and right of the diagonal
        const row = matrix[places[p]!]!;
        const a = (weight * wxx[p]!) / 2;
        const b = (weight * wyy[p]!) / 2;
        const c = weight * wxy[p]!;
        for (let q = p; q < 16; q++) row[places[q]!]! += a * wyy[q]! + b * wxx[q]! - c * wxy[q]!;
      }
    }
  }
  for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) matrix[i]![j] = matrix[j]![i]!;
  return { matrix };
}

/** a + factor × b. */
export const addForms = (a: SlackForm, b: SlackForm, factor: number): SlackForm => ({ matrix: sumPacked(a.matrix, b.matrix, factor) });

/** Mean and standard deviation of a quadratic form over all panes that the measures leave. */
export interface Spread {
  /** Of the fitted pane alone. */
  readonly atFitMm: number;
  /** What the doubt itself adds on the average: twist that nobody measured takes curvature away. */
  readonly biasMm: number;
  readonly sigmaMm: number;
}

/** What a form and the doubt of a pane have in common: kept, so that one more bow is weighed without doing it all again. */
export interface Weighed extends Spread, SlackForm {
  readonly formTimesCovariance: readonly Float64Array[];
  readonly formTimesFit: Float64Array;
}

/** @source moments of a quadratic form of normal variables: mean c'Qc + tr QΣ, variance 4 c'QΣQc + 2 tr (QΣ)² (Searle, Linear Models, 2.5; from memory) */
export function weigh(fit: PaneFit, { matrix }: SlackForm): Weighed {
  const formTimesFit = applyPacked(matrix, fit.coefficients);
  const s = fit.covariance;
  const n = matrix.length;
  const product = packedRows(n);
  product.forEach((to, i) => addPacked(to, matrix[i]!, s));
  let [trace, traceSquare] = [0, 0];
  product.forEach((row, i) => {
    trace += row[i]!;
    // (QΣ)² along its diagonal; both halves at once
    traceSquare += row[i]! ** 2;
    for (let j = 0; j < i; j++) traceSquare += 2 * row[j]! * product[j]![i]!;
  });
  const linear = timesPacked(formTimesFit, applyPacked(s, formTimesFit));
  return {
    atFitMm: timesPacked(fit.coefficients, formTimesFit),
    biasMm: trace,
    sigmaMm: Math.sqrt(Math.max(0, 4 * linear + 2 * traceSquare)),
    matrix,
    formTimesCovariance: product,
    formTimesFit,
  };
}

/** The part of the standard deviation of a form that comes of the first order alone: never more than the whole, and had for a twentieth of the work. */
export function leastSigma(fit: PaneFit, { matrix }: SlackForm): number {
  const slope = applyPacked(matrix, fit.coefficients);
  return 2 * Math.sqrt(Math.max(0, timesPacked(slope, applyPacked(fit.covariance, slope))));
}

/** A bow that could still be read, and what it would do. */
export interface NextBow {
  readonly place: BowPlace;
  /** By how much it would narrow the range of the slack: 0.4 = four tenths narrower. */
  readonly narrowsFrac: number;
}

/** Whether two straightedges lie as good as on one another. */
const isMuchTheSame = (a: BowPlace, b: BowPlace, nearMm: number): boolean =>
  a.way === b.way &&
  Math.abs(a.atMm - b.atMm) < nearMm &&
  (a.span === null) === (b.span === null) &&
  Math.abs((a.span?.fromMm ?? 0) - (b.span?.fromMm ?? 0)) < 60;

/** Where a short straightedge may stand on an upright or a level one, from edge to edge: at its beginning, in its middle, at its end. */
function shortOnes(outline: Polygon, way: 'upright' | 'across', atMm: number): BowPlace[] {
  const edge = straightedgeOf(outline, { way, atMm, span: null });
  const whole = edge ? lengthOf(edge) : 0;
  return SHORT_SHARES.flatMap((share) => {
    const lengthMm = Math.round(Math.min(300, share * whole) / 10) * 10;
    const last = Math.floor(whole - lengthMm);
    return lengthMm < 80 ? [] : [0, Math.round(last / 20) * 10, last].map((fromMm): BowPlace => ({ way, atMm, span: { fromMm, lengthMm } }));
  });
}
/** Lengths of short straightedges that are thought of, as shares of the way from edge to edge. */
const SHORT_SHARES = [0.25, 0.45];

/** Places where a straightedge could still be laid. */
function freePlaces(outline: Polygon, taken: readonly BowPlace[]): BowPlace[] {
  const box = boundingBox(outline);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const on = (from: number, size: number) => (k: number) => Math.round((from + k * size) / 5) * 5;
  const [level, upright] = [on(box.minY, h), on(box.minX, w)];
  const whole = [0.08, 0.15, 0.25, 0.35, 0.5, 0.65, 0.75, 0.85, 0.92];
  const all: BowPlace[] = [
    ...whole.map((k): BowPlace => ({ way: 'across', atMm: level(k), span: null })),
    ...whole.map((k): BowPlace => ({ way: 'upright', atMm: upright(k), span: null })),
    ...(['down', 'up'] as const).map((way): BowPlace => ({ way, atMm: 0, span: null })),
    ...[0.3, 0.5, 0.7].flatMap((k) => [...shortOnes(outline, 'upright', upright(k)), ...shortOnes(outline, 'across', level(k))]),
  ];
  return all.filter((p) => !taken.some((t) => isMuchTheSame(t, p, 0.07 * (p.way === 'across' ? h : w))));
}

/**
 * The one more bow that would narrow the ranges most: for each place where a straightedge could be laid, the variance that is left when it is read.
 * @param ranges what is to be known better, all of the same weight: the slack above and the slack below, which settle how high the line lies as well
 * @returns null when none would narrow them by a tenth
 * @source variance after one more sight: Σ − Σa a'Σ / (a'Σa + σ²), as in any least-squares adjustment
 */
export function nextBow(fit: PaneFit, outline: Polygon, ranges: readonly Weighed[], taken: readonly BowPlace[]): NextBow | null {
  const now = ranges.reduce((s, r) => s + r.sigmaMm ** 2, 0);
  let best: NextBow | null = null;
  for (const place of freePlaces(outline, taken)) {
    const terms = bowTerms(outline, place);
    if (!terms) continue;
    const row = new Float64Array(splineCount(fit.box));
    for (const t of terms) addDerivative(row, splineAt(fit.box, t.x, t.y), 0, 0, t.factor);
    const seen = applyPacked(fit.covariance, row);
    const spread = timesPacked(row, seen) + BOW_SIGMA_MM ** 2;
    const left = ranges.reduce((s, r) => s + Math.max(0, r.sigmaMm ** 2 + change(r, seen, spread)), 0);
    const narrowsFrac = now > 0 ? 1 - Math.sqrt(left / now) : 0;
    if (!best || narrowsFrac > best.narrowsFrac) best = { place, narrowsFrac };
  }
  return best && best.narrowsFrac >= 0.1 ? best : null;
}

/** By how much one more sight changes the variance of a form: with w = Σa, Q Σ' = QΣ − Qw w'/d. */
function change(known: Weighed, seen: Float64Array, spread: number): number {
  const q = applyPacked(known.matrix, seen);
  const mq = applyPacked(known.formTimesCovariance, q);
  const square = 2 * (-(2 / spread) * timesPacked(seen, mq) + (timesPacked(seen, q) / spread) ** 2);
  return square - (4 * timesPacked(seen, known.formTimesFit) ** 2) / spread;
}
