import type { MeasureKey } from '@yellow-pane/contracts';
import { rankOf, solveSymmetric, transposeTimes } from '../geometry/index.js';
import { matchedLevels } from '../ground/index.js';
import { isBow, readingSlope, rectangle, trueReading, type Shape } from './opening.js';

/** One tape as it enters the adjustment. */
export interface TapeReading {
  readonly measure: MeasureKey;
  readonly lengthMm: number;
  /** How often it was taken anew and came out the same; absent = once. */
  readonly times?: number;
}

/** Random error of a tape held by hand: constant part plus a part per length. @source common practice (1 mm + 0.1 ‰) */
export interface TapeError {
  readonly constantMm: number;
  readonly perMille: number;
}
export const handTape: TapeError = { constantMm: 1, perMille: 0.1 };
export const tapeSigmaMm = (lengthMm: number, tape: TapeError = handTape): number => tape.constantMm + (tape.perMille / 1000) * Math.abs(lengthMm);

/** Levels of the tests: α₀ for a single reading, the power with which a slip of the size λ₀ is found. House rule: 1 %, 80 %. */
export interface TestLevels {
  readonly alpha0: number;
  readonly power: number;
}
export const houseLevels: TestLevels = { alpha0: 0.01, power: 0.8 };

export interface AdjustedReading {
  readonly measure: MeasureKey;
  readonly readMm: number;
  readonly adjustedMm: number;
  readonly residualMm: number;
  readonly sigmaMm: number;
  /** Baarda's w: residual over its standard deviation; 0 where nothing checks this reading. */
  readonly normalised: number;
  /** Share of the reading that the others check, 0 … 1. */
  readonly redundancyFrac: number;
}

export interface Adjustment<S extends readonly number[] = Shape> {
  readonly shape: S;
  readonly readings: readonly AdjustedReading[];
  readonly redundancy: number;
  /** True when the readings alone fix the shape. */
  readonly isDetermined: boolean;
  readonly chiSquare: number;
  readonly limit: number;
  readonly alpha: number;
  readonly power: number;
  readonly passes: boolean;
  /** Covariance of the numbers of the shape, mm². */
  readonly covariance: readonly (readonly number[])[];
  /** Correlation between the tests of any two readings: 1 = cannot be told apart. Same order as `readings`. */
  readonly testCorrelation: readonly (readonly number[])[];
}

/** How crooked openings usually are, 1 σ in mm. @source house rule, docs/models/survey.md §3 */
export const usualTaperMm = 4;
export const usualRackMm = 6;

/** Rows that pull towards a rectangle: width taper, height taper, rack. */
export const crookednessRows: readonly (readonly number[])[] = [
  [-1, -1, 0, 1, 0],
  [0, 0, 1, 0, -1],
  [-0.5, 0.5, 0, 0.5, 0],
];

const median = (values: number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const mid = sorted.length >> 1;
  return sorted.length % 2 ? sorted[mid]! : (sorted[mid - 1]! + sorted[mid]!) / 2;
};

/** A rectangle near the opening, from whatever was taped; null when no width or no height can be had. */
export function firstGuess(readings: readonly TapeReading[]): Shape | null {
  const of = (...keys: MeasureKey[]) => readings.filter((r) => keys.includes(r.measure)).map((r) => r.lengthMm);
  const widths = of('widthTop', 'widthMiddle', 'widthBottom', 'widthLargest');
  const heights = of('heightLeft', 'heightMiddle', 'heightRight', 'heightLargest');
  const diagonals = of('diagonalDown', 'diagonalUp');
  let width = widths.length ? median(widths) : null;
  let height = heights.length ? median(heights) : null;
  const third = (side: number) => (diagonals.length && median(diagonals) > side ? Math.sqrt(median(diagonals) ** 2 - side ** 2) : null);
  if (width === null && height !== null) width = third(height);
  if (height === null && width !== null) height = third(width);
  return width && height ? rectangle(width, height) : null;
}

/** Gap of a side if a straightedge was laid along it, else 0. */
const gapOf = (readings: readonly TapeReading[], key: MeasureKey): number => readings.find((r) => r.measure === key)?.lengthMm ?? 0;

/**
 * Middle tapes span the bows of their two sides: what the straightedge found is taken off before adjusting, with its own
 * error (0.5 mm per gap, common practice).
 */
function withoutBows(readings: readonly TapeReading[], tape: TapeError): { measure: MeasureKey; lengthMm: number; readMm: number; sigmaMm: number }[] {
  const gapCount = (a: MeasureKey, b: MeasureKey) => readings.filter((r) => r.measure === a || r.measure === b).length;
  return readings
    .filter((r) => !isBow(r.measure))
    .map((r) => {
      const [a, b] =
        r.measure === 'widthMiddle' ? (['bowLeft', 'bowRight'] as const) : r.measure === 'heightMiddle' ? (['bowTop', 'bowBottom'] as const) : [null, null];
      const bowMm = a ? gapOf(readings, a) + gapOf(readings, b) : 0;
      const sigma = tapeSigmaMm(r.lengthMm, tape);
      return { measure: r.measure, lengthMm: r.lengthMm - bowMm, readMm: r.lengthMm, sigmaMm: a ? Math.hypot(sigma, 0.5 * Math.sqrt(gapCount(a, b))) : sigma };
    });
}

/**
 * Least-squares adjustment of a four-sided opening.
 * Redundant tapes share their errors by weight; what they cannot fix is filled by the most rectangular shape that agrees
 * with them, and then carries the uncertainty of how crooked openings usually are.
 * @param readings one per measure; bow gaps correct the middle tapes
 * @returns null when not even a rectangle can be had (no width or no height)
 * @source docs/models/survey.md; Gauss–Markov model, Baarda's w-test and matched levels (1968)
 */
export function adjustOpening(readings: readonly TapeReading[], tape: TapeError = handTape, levels: TestLevels = houseLevels): Adjustment | null {
  const start = firstGuess(readings);
  if (!start) return null;
  const rows = withoutBows(readings, tape);
  const weights = rows.map((r) => 1 / r.sigmaMm ** 2);
  let shape = start;
  let slopes = rows.map((r) => readingSlope(shape, r.measure));
  const rank = rankOf(slopes);
  const isDetermined = rank === 5;
  const pull = (taper: number, rack: number) => transposeTimes(crookednessRows, [1 / taper ** 2, 1 / taper ** 2, 1 / rack ** 2], crookednessRows);
  const faint = pull(1e4, 1e4);
  const sum = (a: number[][], b: number[][]) => a.map((row, i) => row.map((v, j) => v + b[i]![j]!));
  for (let i = 0; i < 25; i++) {
    slopes = rows.map((r) => readingSlope(shape, r.measure));
    const misfit = rows.map((r) => [r.lengthMm - trueReading(shape, r.measure)]);
    const right = transposeTimes(slopes, weights, misfit).map((v) => v[0]!);
    const normal = transposeTimes(slopes, weights, slopes);
    const crook = crookednessRows.map((row) => row.reduce((s, v, j) => s + v * shape[j]!, 0));
    if (!isDetermined) crookednessRows.forEach((row, k) => row.forEach((v, j) => (right[j]! -= (v * crook[k]!) / 1e8)));
    const step = solveSymmetric(isDetermined ? normal : sum(normal, faint), right).solution;
    shape = shape.map((v, j) => v + step[j]!) as unknown as Shape;
    if (Math.max(...step.map(Math.abs)) < 1e-9) break;
  }
  slopes = rows.map((r) => readingSlope(shape, r.measure));
  const normal = transposeTimes(slopes, weights, slopes);
  const inverse = solveSymmetric(isDetermined ? normal : sum(normal, faint), new Array(5).fill(0)).inverse;
  const spread = (i: number, j: number) => {
    let s = 0;
    slopes[i]!.forEach((a, p) => slopes[j]!.forEach((b, q) => (s += a * inverse[p]![q]! * b)));
    return s;
  };
  const redundancy = rows.length - rank;
  const residuals = rows.map((r) => r.lengthMm - trueReading(shape, r.measure));
  const qv = rows.map((r, i) => rows.map((_, j) => (i === j ? r.sigmaMm ** 2 : 0) - spread(i, j)));
  const chiSquare = residuals.reduce((s, v, i) => s + v * v * weights[i]!, 0);
  const { limit, alpha } = redundancy > 0 ? matchedLevels(levels.alpha0, levels.power, redundancy) : { limit: Infinity, alpha: levels.alpha0 };
  const adjusted = rows.map((r, i) => {
    const redundancyFrac = Math.max(0, qv[i]![i]! * weights[i]!);
    const checked = redundancyFrac > 1e-6;
    return {
      measure: r.measure,
      readMm: r.readMm,
      adjustedMm: r.readMm - residuals[i]!,
      residualMm: residuals[i]!,
      sigmaMm: r.sigmaMm,
      normalised: checked ? residuals[i]! / Math.sqrt(qv[i]![i]!) : 0,
      redundancyFrac,
    };
  });
  return {
    shape,
    readings: adjusted,
    redundancy,
    isDetermined,
    chiSquare: redundancy > 0 ? chiSquare : 0,
    limit,
    alpha,
    power: levels.power,
    passes: redundancy === 0 || chiSquare <= limit,
    covariance: isDetermined ? inverse : solveSymmetric(sum(normal, pull(usualTaperMm, usualRackMm)), new Array(5).fill(0)).inverse,
    testCorrelation: qv.map((row, i) => row.map((v, j) => (qv[i]![i]! * qv[j]![j]! > 1e-12 ? v / Math.sqrt(qv[i]![i]! * qv[j]![j]!) : 0))),
  };
}

/** Standard deviation of what a tape would read on this shape. */
export function readingSigmaMm(a: Adjustment, key: MeasureKey): number {
  const g = readingSlope(a.shape, key);
  let v = 0;
  g.forEach((x, i) => g.forEach((y, j) => (v += x * a.covariance[i]![j]! * y)));
  return Math.sqrt(Math.max(0, v));
}
