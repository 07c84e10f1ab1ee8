import { boundingBox, type Polygon } from '../geometry/index.js';
import { straightLine, type Anchor } from './anchor-line.js';
import { lossesFrom, shrinkField, summedAlong, type EdgeLosses, type FieldOptions, type ShrinkField } from './shrink-field.js';
import type { CurvedSurface } from './surface.js';

/** Heights at which a balance is looked for, as shares of the pane's height, before the best are closed in on. @source house rule */
const LOOKS = [0.01, 0.06, 0.14, 0.24, 0.36, 0.5, 0.64, 0.76, 0.86, 0.94, 0.99];
/** Threads are followed in longer steps while looking. */
const COARSE = 2.5;
/** A line steeper than this is not laid by anybody. @source house rule: 150 mm over a metre */
const MOST_SLOPE = 0.15;
/** Close enough: a fingernail of film is 1 mm. */
const NEAR_MM = 0.01;
/** Rounding, not slack. */
const NOTHING_MM = 1e-6;

/** An anchor line that leaves as much to lose below it as above, on the left as on the right. */
export interface BalancedAnchor {
  readonly anchor: Anchor;
  /** Above the lowest point of the pane, where the line crosses its middle. */
  readonly heightMm: number;
  readonly field: ShrinkField;
}

/** A line tried at a height and a slope. */
interface Look {
  readonly v: number;
  readonly slope: number;
  readonly anchor: Anchor;
  /** What has to go below less what has to go above: on the whole line, on its left and its right half. */
  readonly gapMm: number;
  readonly leftMm: number;
  readonly rightMm: number;
  readonly worstMm: number;
}

/** Tries lines through `u` in steps of a size. */
function trying(surface: CurvedSurface, outline: Polygon, u: number, stepMm: number): (v: number, slope: number) => Look {
  const losses = lossesFrom(surface, outline, stepMm);
  return (v, slope) => {
    const anchor: Anchor = { through: { u, v }, way: { du: 1, dv: slope } };
    const found = losses(straightLine(surface, outline, anchor, stepMm));
    const [left, right] = halfGaps(found);
    const [above, below] = [toGo(found.alongMm, found.above), toGo(found.alongMm, found.below)];
    return { v, slope, anchor, gapMm: below - above, leftMm: left, rightMm: right, worstMm: Math.max(below, above) };
  };
}

/** What has to go along an edge, mm; where film would have to stretch nothing goes. */
const toGo = (alongMm: Float64Array, loss: Float64Array): number =>
  summedAlong(
    loss.length,
    (i) => alongMm[i]!,
    (i) => Math.max(0, loss[i]!),
  );

/**
 * The height at which a level-starting anchor line through `u` leaves the same slack above and below. Going up, the slack below has to overtake that above:
 * where it is the other way round (on a saddle) the line is the worst, not the best, and is passed over.
 * @returns null where no height balances: on a flat or rolled pane nothing has to go, on a saddle it would have to stretch
 */
export function levelBalance(surface: CurvedSurface, outline: Polygon, u: number, { stepMm }: FieldOptions): BalancedAnchor | null {
  const { minY, maxY } = boundingBox(outline);
  const coarse = trying(surface, outline, u, stepMm * COARSE);
  const level = (v: number) => coarse(v, 0);
  const looks = LOOKS.map((k) => level(minY + k * (maxY - minY)));
  let start: Look | null = null;
  for (let i = 1; i < looks.length; i++) {
    const [low, high] = [looks[i - 1]!, looks[i]!];
    if (!(low.gapMm < -NOTHING_MM && high.gapMm > -NOTHING_MM)) continue;
    const found = closeIn(level, low, high);
    if (!start || found.worstMm < start.worstMm) start = found;
  }
  if (!start) return null;
  // longer steps were good enough to look with; the last of the way is gone in the steps that count
  const fine = trying(surface, outline, u, stepMm);
  let best = fine(start.v, 0);
  const by = 0.02 * (maxY - minY);
  const slope = (fine(best.v + by, 0).gapMm - best.gapMm) / by;
  for (let i = 0; i < 3 && Math.abs(best.gapMm) > NEAR_MM && slope > 0; i++) {
    const next = fine(best.v - best.gapMm / slope, 0);
    if (Math.abs(next.gapMm) >= Math.abs(best.gapMm)) break;
    best = next;
  }
  return found(surface, outline, best, stepMm);
}

const found = (surface: CurvedSurface, outline: Polygon, { anchor, v }: Look, stepMm: number): BalancedAnchor => ({
  anchor,
  heightMm: v - boundingBox(outline).minY,
  field: shrinkField(surface, outline, anchor, { stepMm }),
});

/** A level line tilted so that the left and the right half of the pane balance each for themselves. */
export function withTilt(surface: CurvedSurface, outline: Polygon, level: BalancedAnchor, { stepMm }: FieldOptions): BalancedAnchor {
  const { minY, maxY } = boundingBox(outline);
  const { u } = level.anchor.through;
  const at = trying(surface, outline, u, stepMm);
  let best = at(level.anchor.through.v, 0);
  // two unknowns, two gaps: slopes are taken once over a good stretch, then corrected by what each try shows (Broyden's rule)
  const [dv, ds] = [0.03 * (maxY - minY), 0.04];
  const [higher, tilted] = [at(best.v + dv, 0), at(best.v, ds)];
  let [a, b, c, d] = [
    (higher.leftMm - best.leftMm) / dv,
    (tilted.leftMm - best.leftMm) / ds,
    (higher.rightMm - best.rightMm) / dv,
    (tilted.rightMm - best.rightMm) / ds,
  ];
  const miss = (l: Look) => Math.abs(l.leftMm) + Math.abs(l.rightMm);
  let step = 1;
  for (let i = 0; i < 10 && miss(best) > NEAR_MM; i++) {
    const det = a * d - b * c;
    if (!(Math.abs(det) > 1e-12)) break;
    const [stepV, stepS] = [(-step * (d * best.leftMm - b * best.rightMm)) / det, (-step * (a * best.rightMm - c * best.leftMm)) / det];
    const [v, slope] = [best.v + stepV, best.slope + stepS];
    if (!(Math.abs(slope) <= MOST_SLOPE && v > minY && v < maxY)) {
      step /= 2;
      continue;
    }
    const next = at(v, slope);
    // rows corrected along the step; the two unknowns are brought to the same size first
    const [p, q] = [stepV / dv ** 2, stepS / ds ** 2];
    const size = stepV * p + stepS * q;
    const [offL, offR] = [next.leftMm - best.leftMm - a * stepV - b * stepS, next.rightMm - best.rightMm - c * stepV - d * stepS];
    [a, b, c, d] = [a + (offL * p) / size, b + (offL * q) / size, c + (offR * p) / size, d + (offR * q) / size];
    if (miss(next) < miss(best)) [best, step] = [next, 1];
    else step /= 2;
  }
  return found(surface, outline, best, stepMm);
}

/** Height and tilt at which an anchor line through `u` leaves the same slack above and below, on both halves of the pane. @returns null as for a level one */
export function balancedAnchor(surface: CurvedSurface, outline: Polygon, u: number, options: FieldOptions): BalancedAnchor | null {
  const level = levelBalance(surface, outline, u, options);
  return level && withTilt(surface, outline, level, options);
}

/** Halving and straight lines by turns (the Illinois rule) between a height with too little below and one with too much. */
function closeIn<T extends { v: number; gapMm: number }>(at: (v: number) => T, first: T, last: T): T {
  let [low, high] = [first, last];
  let [fLow, fHigh] = [low.gapMm, high.gapMm];
  for (let i = 0; i < 12 && high.v - low.v > 0.05; i++) {
    const next = at((fHigh * low.v - fLow * high.v) / (fHigh - fLow));
    if (Math.abs(next.gapMm) < NEAR_MM) return next;
    if (next.gapMm < 0) [low, fLow, fHigh] = [next, next.gapMm, fHigh / 2];
    else [high, fHigh, fLow] = [next, next.gapMm, fLow / 2];
  }
  return Math.abs(low.gapMm) < Math.abs(high.gapMm) ? low : high;
}

/** What has to go below less what has to go above, on the left and on the right of the middle of the line. */
export function halfGaps({ alongMm, above, below }: EdgeLosses): readonly [number, number] {
  const gap = (i: number): number => Math.max(0, below[i]! || 0) - Math.max(0, above[i]! || 0);
  let [left, right] = [0, 0];
  const middle = (alongMm[0]! + alongMm.at(-1)!) / 2;
  for (let i = 1; i < alongMm.length; i++) {
    const [a, b] = [alongMm[i - 1]!, alongMm[i]!];
    const part = ((gap(i - 1) + gap(i)) / 2) * (b - a);
    // the piece over the middle is shared out
    const share = Math.min(1, Math.max(0, (middle - a) / (b - a)));
    left += share * part;
    right += (1 - share) * part;
  }
  return [left, right];
}
