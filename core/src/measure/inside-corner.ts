/** The second film of an inside corner is trimmed along a ruler of this thickness. @source common practice: ⅛ in */
export const CORNER_RULER_MM = 3;
/** Less lap lifts. @source common practice, the brief of the trade: return less ruler, no less than 6 mm */
export const LEAST_CORNER_LAP_MM = 6;

/** How far the first film turns on to the second wall, and what of it stays lapped where the corner wanders farthest. */
export interface InsideReturn {
  readonly returnMm: number;
  readonly leastLapMm: number;
  /** The corner wanders too far for the usual guide. */
  readonly isWidened: boolean;
}

/**
 * The return of an inside corner. The guide is straight and the corner is not: where it wanders by w the lap that is left is return − ruler − w.
 * @param usualMm the firm’s guide; wanderMm the widest gap under a straightedge, null: nobody laid one
 * @source CHECKS: return 13, ruler 3: lap 10 (common practice)
 */
export function insideReturnMm(usualMm: number, wanderMm: number | null): InsideReturn {
  const wander = wanderMm ?? 0;
  const least = Math.ceil(LEAST_CORNER_LAP_MM + CORNER_RULER_MM + wander - 1e-9);
  const returnMm = Math.max(usualMm, least);
  return { returnMm, leastLapMm: returnMm - CORNER_RULER_MM - wander, isWidened: least > usualMm };
}
