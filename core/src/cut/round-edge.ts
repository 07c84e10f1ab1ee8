import { MOST_STRETCH_FRAC } from '../form/index.js';

/**
 * How much longer the flat film is than the place it is laid on, where it is turned inwards round a corner, on to a top or underneath it, so far past the arris.
 * @param turnRad by how much the edge turns @param radiusMm 0: sharp @param pastMm from the arris inwards
 * @returns mm to be cut out as Vs
 * @source closed form: length of an outline less that of its inner parallel curve, `φ·x` on a round, `2x·tan(φ/2)` at a corner (docs/models/counters.md §4)
 */
export const tooMuchMm = (turnRad: number, radiusMm: number, pastMm: number): number =>
  turnRad * Math.min(pastMm, radiusMm) + 2 * Math.max(0, pastMm - radiusMm) * Math.tan(turnRad / 2);

/** Film that is pulled down over the edge of a round, without a fold. */
export interface RoundEdge {
  /** The most it is stretched, at the lower arris, as a fraction. */
  readonly stretchFrac: number;
  /** Flat film from the arris that comes to lie on the edge: less than the edge is deep. */
  readonly filmMm: number;
}
/**
 * A flat sheet pulled straight down over the edge of a round: at its outer rim there is too much of it. Where it is pulled hard enough, it draws in sideways by just
 * as much; pulled one way at constant volume, a sheet λ times as long is 1/√λ as wide.
 * @source docs/models/counters.md §3: width ratio r/(r + u), so λ = (1 + u/r)² and depth r/3·((1 + u/r)³ − 1); incompressible, isotropic, tension one way
 */
export function roundEdge(radiusMm: number, depthMm: number): RoundEdge {
  if (radiusMm <= 0) return { stretchFrac: Infinity, filmMm: 0 };
  const k = Math.cbrt(1 + (3 * depthMm) / radiusMm);
  return { stretchFrac: k ** 2 - 1, filmMm: radiusMm * (k - 1) };
}
/** The smallest round whose edge of this depth film can be pulled over without a fold. */
export const leastRadiusMm = (depthMm: number, mostFrac = MOST_STRETCH_FRAC): number => (3 * depthMm) / ((1 + mostFrac) ** 1.5 - 1);
