import { boundingBox, type Polygon } from '../geometry/index.js';
import type { Anchor } from './anchor-line.js';
import { shrinkField, type FieldOptions, type ShrinkField, type Station, type Thread } from './shrink-field.js';
import type { CurvedSurface } from './surface.js';

/** Heights at which a balance is looked for, as shares of the pane's height, before the best are closed in on. @source house rule */
const LOOKS = [0.01, 0.06, 0.14, 0.24, 0.36, 0.5, 0.64, 0.76, 0.86, 0.94, 0.99];
/** Threads are followed in longer steps while looking. */
const COARSE = 2.5;
/** A line steeper than this is not laid by anybody. @source house rule: 150 mm over a metre */
const MOST_SLOPE = 0.15;
/** Close enough: a fingernail of film is 1 mm. */
const NEAR_MM = 0.01;

/** An anchor line that leaves as much to lose below it as above, on the left as on the right. */
export interface BalancedAnchor {
  readonly anchor: Anchor;
  /** Above the lowest point of the pane, where the line crosses its middle. */
  readonly heightMm: number;
  readonly field: ShrinkField;
}

/**
 * The height and the tilt at which an anchor line through `u` leaves the same slack above and below, on both halves of the pane. Going up, the slack below
 * has to overtake that above: where it is the other way round (on a saddle) the line is the worst, not the best, and is passed over.
 * @returns null where no height balances: on a flat or rolled pane nothing has to go, on a saddle it would have to stretch
 */
export function balancedAnchor(surface: CurvedSurface, outline: Polygon, u: number, options: FieldOptions): BalancedAnchor | null {
  const { minY, maxY } = boundingBox(outline);
  const at = (v: number, slope: number, stepMm = options.stepMm) => {
    const anchor: Anchor = { through: { u, v }, way: { du: 1, dv: slope } };
    const field = shrinkField(surface, outline, anchor, { stepMm });
    const [left, right] = gaps(field.stations);
    return { v, slope, anchor, field, gap: field.slackBelowMm - field.slackAboveMm, left, right, worst: Math.max(field.slackBelowMm, field.slackAboveMm) };
  };
  type Look = ReturnType<typeof at>;
  const level = (v: number) => at(v, 0, options.stepMm * COARSE);
  const looks = LOOKS.map((k) => level(minY + k * (maxY - minY)));
  let start: Look | null = null;
  for (let i = 1; i < looks.length; i++) {
    const [low, high] = [looks[i - 1]!, looks[i]!];
    if (!(low.gap < 0 && high.gap >= 0)) continue;
    const found = closeIn(level, low, high);
    if (!start || found.worst < start.worst) start = found;
  }
  if (!start) return null;
  let best = at(start.v, 0);
  // two unknowns, two gaps: slopes are taken once over a good stretch, then corrected by what each try shows (Broyden's rule)
  const [dv, ds] = [0.03 * (maxY - minY), 0.04];
  const [higher, tilted] = [at(best.v + dv, 0), at(best.v, ds)];
  let [a, b, c, d] = [(higher.left - best.left) / dv, (tilted.left - best.left) / ds, (higher.right - best.right) / dv, (tilted.right - best.right) / ds];
  const miss = (l: Look) => Math.abs(l.left) + Math.abs(l.right);
  let step = 1;
  for (let i = 0; i < 10 && miss(best) > NEAR_MM; i++) {
    const det = a * d - b * c;
    if (!(Math.abs(det) > 1e-12)) break;
    const [stepV, stepS] = [(-step * (d * best.left - b * best.right)) / det, (-step * (a * best.right - c * best.left)) / det];
    const [v, slope] = [best.v + stepV, best.slope + stepS];
    if (!(Math.abs(slope) <= MOST_SLOPE && v > minY && v < maxY)) {
      step /= 2;
      continue;
    }
    const next = at(v, slope);
    // rows corrected along the step; the two unknowns are brought to the same size first
    const [p, q] = [stepV / dv ** 2, stepS / ds ** 2];
    const size = stepV * p + stepS * q;
    const [offL, offR] = [next.left - best.left - a * stepV - b * stepS, next.right - best.right - c * stepV - d * stepS];
    [a, b, c, d] = [a + (offL * p) / size, b + (offL * q) / size, c + (offR * p) / size, d + (offR * q) / size];
    if (miss(next) < miss(best)) [best, step] = [next, 1];
    else step /= 2;
  }
  return { anchor: best.anchor, heightMm: best.v - minY, field: best.field };
}

/** Halving and straight lines by turns (the Illinois rule) between a height with too little below and one with too much. */
function closeIn<T extends { v: number; gap: number }>(at: (v: number) => T, first: T, last: T): T {
  let [low, high] = [first, last];
  let [fLow, fHigh] = [low.gap, high.gap];
  for (let i = 0; i < 12 && high.v - low.v > 0.05; i++) {
    const next = at((fHigh * low.v - fLow * high.v) / (fHigh - fLow));
    if (Math.abs(next.gap) < NEAR_MM) return next;
    if (next.gap < 0) [low, fLow, fHigh] = [next, next.gap, fHigh / 2];
    else [high, fHigh, fLow] = [next, next.gap, fLow / 2];
  }
  return Math.abs(low.gap) < Math.abs(high.gap) ? low : high;
}

/** Slack below less slack above, on the left and on the right of the middle of the line. */
function gaps(stations: readonly Station[]): readonly [number, number] {
  const loss = (t: Thread) => (t.edge ? 1 - t.edge.widthRatio : 0);
  let [left, right] = [0, 0];
  const middle = (stations[0]!.alongMm + stations.at(-1)!.alongMm) / 2;
  for (let i = 1; i < stations.length; i++) {
    const [a, b] = [stations[i - 1]!, stations[i]!];
    const part = ((loss(a.down) - loss(a.up) + loss(b.down) - loss(b.up)) / 2) * (b.alongMm - a.alongMm);
    // the piece over the middle is shared out
    const share = Math.min(1, Math.max(0, (middle - a.alongMm) / (b.alongMm - a.alongMm)));
    left += share * part;
    right += (1 - share) * part;
  }
  return [left, right];
}
