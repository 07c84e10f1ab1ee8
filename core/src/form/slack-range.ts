import type { BowPlace } from '@yellow-pane/contracts';
import { boundingBox, type Polygon } from '../geometry/index.js';
import { BOW_SIGMA_MM, bowTerms } from './bow-sights.js';
import { heightOn, type LinePoint } from './anchor-line.js';
import type { PaneFit } from './pane-fit.js';
import { addDerivative, splineAt, splineCount, splineHeight } from './spline.js';
import { straightedgeOf } from './pane-outline.js';

/** Which edge the slack hangs from. */
export type EdgeSide = 'above' | 'below';

/** Slack as a quadratic form of the coefficients of the pane: c' Q c. */
export interface SlackForm {
  readonly matrix: readonly Float64Array[];
}

const COLUMNS = 28;
const ROWS = 10;

/** Where an outline begins and ends over a place, from below; null off the pane. */
function edgesAt(outline: Polygon, x: number): readonly [number, number] | null {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [a, b] = [outline[i]!, outline[j]!];
    if (a.x > x === b.x > x) continue;
    const y = a.y + ((x - a.x) / (b.x - a.x)) * (b.y - a.y);
    if (y < low) low = y;
    if (y > high) high = y;
  }
  return high > low ? [low, high] : null;
}

/**
 * The slack along an edge in leading order: over every place between line and edge its Gaussian curvature, times how far the edge still is, since a thread
 * that is bent together there runs on so far. Curvature is a product of second derivatives of the height, so slack is a quadratic form of the
 * coefficients; how steep the pane stands is taken as fitted.
 * @param across only the part of the edge between these places, mm from the lower left corner
 * @source J'' = −K J to first order: J(s) = 1 − ∫ (s − t) K dt; docs/models/shrink.md
 */
export function slackForm(fit: PaneFit, outline: Polygon, line: readonly LinePoint[], side: EdgeSide, across?: readonly [number, number]): SlackForm {
  const n = splineCount(fit.box);
  const matrix = Array.from({ length: n }, () => new Float64Array(n));
  const box = boundingBox(outline);
  const [from, to] = across ?? [box.minX, box.maxX];
  const dx = (to - from) / COLUMNS;
  const height = splineHeight(fit.box, fit.coefficients);
  const [wxx, wyy, wxy] = [new Float64Array(16), new Float64Array(16), new Float64Array(16)];
  const places = new Int32Array(16);
  for (let i = 0; i < COLUMNS; i++) {
    const x = from + (i + 0.5) * dx;
    const [edges, start] = [edgesAt(outline, x), heightOn(line, x)];
    if (edges === null) continue;
    const reach = side === 'above' ? edges[1] - start : start - edges[0];
    if (reach <= 0) continue;
    for (let j = 0; j < ROWS; j++) {
      const t = (j + 0.5) / ROWS;
      const y = side === 'above' ? start + t * reach : start - t * reach;
      const at = splineAt(fit.box, x, y);
      const { zx, zy } = height(x, y);
      const steep = 1 + zx * zx + zy * zy;
      const weight = ((1 - t) * reach * (reach / ROWS) * dx) / (steep * steep);
      for (let k = 0; k < 16; k++) {
        const [p, q] = [k & 3, k >> 2];
        places[k] = at.first + q * at.stride + p;
        wxx[k] = at.x[2]![p]! * at.y[0]![q]!;
        wyy[k] = at.x[0]![p]! * at.y[2]![q]!;
        wxy[k] = at.x[1]![p]! * at.y[1]![q]!;
      }
      for (let p = 0; p < 16; p++) {
        const row = matrix[places[p]!]!;
        for (let q = 0; q < 16; q++) row[places[q]!]! += weight * ((wxx[p]! * wyy[q]! + wyy[p]! * wxx[q]!) / 2 - wxy[p]! * wxy[q]!);
      }
    }
  }
  return { matrix };
}

/** a + factor × b. */
export const addForms = (a: SlackForm, b: SlackForm, factor: number): SlackForm => ({
  matrix: a.matrix.map((row, i) => row.map((v, j) => v + factor * b.matrix[i]![j]!)),
});

const times = (a: Float64Array, b: Float64Array): number => {
  let s = 0;
  for (let i = 0; i < a.length; i++) s += a[i]! * b[i]!;
  return s;
};
const apply = (m: readonly Float64Array[], v: Float64Array): Float64Array => Float64Array.from(m, (row) => times(row, v));

/** Mean and standard deviation of a quadratic form over all panes that the measures leave. */
export interface Spread {
  /** Of the fitted pane alone. */
  readonly atFit: number;
  /** What the doubt itself adds on the average: twist that nobody measured takes curvature away. */
  readonly bias: number;
  readonly sigma: number;
}

/** What a form and the doubt of a pane have in common: kept, so that one more bow is weighed without doing it all again. */
export interface Weighed extends Spread {
  readonly formTimesCovariance: readonly Float64Array[];
  readonly formTimesFit: Float64Array;
}

/** @source moments of a quadratic form of normal variables: mean c'Qc + tr QΣ, variance 4 c'QΣQc + 2 tr (QΣ)² (Searle, Linear Models, 2.5; from memory) */
export function weigh(fit: PaneFit, { matrix }: SlackForm): Weighed {
  const formTimesFit = apply(matrix, fit.coefficients);
  const s = fit.covariance;
  const n = matrix.length;
  const product = matrix.map((row) => {
    const out = new Float64Array(n);
    for (let k = 0; k < n; k++) {
      const v = row[k]!;
      if (v === 0) continue;
      const sk = s[k]!;
      for (let j = 0; j < n; j++) out[j]! += v * sk[j]!;
    }
    return out;
  });
  let [trace, traceSquare] = [0, 0];
  for (let i = 0; i < n; i++) {
    trace += product[i]![i]!;
    for (let j = 0; j < n; j++) traceSquare += product[i]![j]! * product[j]![i]!;
  }
  const linear = times(formTimesFit, apply(s, formTimesFit));
  return {
    atFit: times(fit.coefficients, formTimesFit),
    bias: trace,
    sigma: Math.sqrt(Math.max(0, 4 * linear + 2 * traceSquare)),
    formTimesCovariance: product,
    formTimesFit,
  };
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

/**
 * The one more bow that would narrow the range of the slack most: for each place where a straightedge could be laid, the variance that is left when it is read.
 * @returns null when none would narrow it by a tenth
 * @source variance after one more sight: Σ − Σa a'Σ / (a'Σa + σ²), as in any least-squares adjustment
 */
export function nextBow(fit: PaneFit, outline: Polygon, form: SlackForm, taken: readonly BowPlace[], known = weigh(fit, form)): NextBow | null {
  const box = boundingBox(outline);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const grid = (from: number, size: number) => [0.08, 0.15, 0.25, 0.35, 0.5, 0.65, 0.75, 0.85, 0.92].map((k) => Math.round((from + k * size) / 5) * 5);
  const places: BowPlace[] = [
    ...grid(box.minY, h).map((atMm): BowPlace => ({ way: 'across', atMm, span: null })),
    ...grid(box.minX, w).map((atMm): BowPlace => ({ way: 'upright', atMm, span: null })),
    ...(['down', 'up'] as const).map((way): BowPlace => ({ way, atMm: 0, span: null })),
    // a short one stood on the lower or hung from the upper edge, where a bend may sit
    ...[0.3, 0.5, 0.7].flatMap((k): BowPlace[] => {
      const atMm = Math.round((box.minX + k * w) / 5) * 5;
      const edge = straightedgeOf(outline, { way: 'upright', atMm, span: null });
      const whole = edge ? edge.to.y - edge.from.y : 0;
      const lengthMm = Math.round(Math.min(300, 0.45 * whole) / 10) * 10;
      return lengthMm < 80 ? [] : [0, Math.floor(whole - lengthMm)].map((fromMm) => ({ way: 'upright', atMm, span: { fromMm, lengthMm } }));
    }),
  ].filter((p) => !taken.some((t) => isMuchTheSame(t, p, 0.07 * (p.way === 'across' ? h : w))));
  let best: NextBow | null = null;
  for (const place of places) {
    const terms = bowTerms(outline, place);
    if (!terms) continue;
    const row = new Float64Array(splineCount(fit.box));
    for (const t of terms) addDerivative(row, splineAt(fit.box, t.x, t.y), 0, 0, t.factor);
    const seen = apply(fit.covariance, row);
    const spread = times(row, seen) + BOW_SIGMA_MM ** 2;
    const q = apply(form.matrix, seen);
    // Q Σ' = M − q w'/d with w = Σa
    const mq = apply(known.formTimesCovariance, q);
    const square = 2 * (-(2 / spread) * times(seen, mq) + (times(seen, q) / spread) ** 2);
    const linear = 4 * (-(times(seen, known.formTimesFit) ** 2) / spread);
    const left = Math.sqrt(Math.max(0, known.sigma ** 2 + linear + square));
    const narrowsFrac = known.sigma > 0 ? 1 - left / known.sigma : 0;
    if (!best || narrowsFrac > best.narrowsFrac) best = { place, narrowsFrac };
  }
  return best && best.narrowsFrac >= 0.1 ? best : null;
}
