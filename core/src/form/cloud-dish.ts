import { factorPacked, packedRows } from '../geometry/index.js';
import type { FlatCloud } from './cloud-frame.js';

/** The middle one of some values; 0 of none. */
export const median = (values: Float64Array): number => {
  const sorted = values.slice().sort();
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
};

/** Spread of residuals that strays do not move. @source 1.4826 × median of the absolute values, for normal noise */
export const robustSpread = (r: Float64Array): number => 1.4826 * median(r.map(Math.abs));

/** Most points that the dish is laid through; more make it no truer. */
const MOST_POINTS = 15_000;
/** Where a residual counts for nothing, in spreads. @source Tukey's biweight (from memory) */
const BIWEIGHT = 4.685;
/** The dish never takes its points for truer than this, mm. @source house rule */
const LEAST_WIDTH_MM = 0.02;
const ROUNDS = 8;
/** Leaves six numbers where the points do not settle them all: far below what a point tells. */
const FAINT = 1e-10;

/** Height of a dish over a place, mm. */
export type Dish = (xMm: number, yMm: number) => number;

/** A dish through the points: six numbers, points far off weighted down. @param scaleMm size of the pane @source least squares by turns with Tukey's biweight (from memory) */
export function dishThrough({ x, y, z }: FlatCloud, scaleMm: number): Dish {
  let numbers: ArrayLike<number> = new Float64Array(6);
  const terms = (xMm: number, yMm: number): number[] => {
    const [u, v] = [xMm / scaleMm, yMm / scaleMm];
    return [1, u, v, u * u, u * v, v * v];
  };
  const dish: Dish = (xMm, yMm) => terms(xMm, yMm).reduce((sum, t, k) => sum + t * numbers[k]!, 0);
  const step = Math.max(1, Math.floor(x.length / MOST_POINTS));
  const looked = Array.from({ length: Math.ceil(x.length / step) }, (_, i) => i * step);
  let width = Infinity;
  for (let round = 0; round < ROUNDS; round++) {
    const [normal, right] = [packedRows(6), new Float64Array(6)];
    for (const i of looked) {
      const off = (z[i]! - dish(x[i]!, y[i]!)) / (BIWEIGHT * width);
      const weight = Math.abs(off) >= 1 ? 0 : (1 - off * off) ** 2;
      if (weight === 0) continue;
      const t = terms(x[i]!, y[i]!);
      for (let j = 0; j < 6; j++) {
        right[j]! += weight * t[j]! * z[i]!;
        for (let k = 0; k <= j; k++) normal[j]![k]! += weight * t[j]! * t[k]!;
      }
    }
    const faint = FAINT * normal[0]![0]!;
    normal.forEach((row, j) => (row[j]! += faint));
    numbers = factorPacked(normal).solve(right);
    width = Math.max(LEAST_WIDTH_MM, robustSpread(Float64Array.from(looked, (i) => z[i]! - dish(x[i]!, y[i]!))));
  }
  return dish;
}
