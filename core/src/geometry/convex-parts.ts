import { cross, minus, vec, type Vec } from './vec.js';
import { signedArea, type Polygon } from './polygon.js';

/**
 * A region as convex parts that do not overlap: in no order, each anticlockwise. Taking convex things off it needs nothing but half planes, so it
 * cannot fail where edges lie on one another, as they do along a stop line.
 */
export type ConvexParts = readonly Polygon[];

/** Parts smaller than this are rounding. */
const NOTHING_MM2 = 1e-6;

/** An outline with its holes (rings that do not cross, in either sense of rotation) as trapezoids between the heights of its corners. */
export function trapezoidsOf(rings: readonly Polygon[]): ConvexParts {
  const heights = [...new Set(rings.flatMap((r) => r.map((p) => p.y)))].sort((a, b) => a - b);
  const parts: Polygon[] = [];
  for (let i = 0; i + 1 < heights.length; i++) {
    const [low, high] = [heights[i]!, heights[i + 1]!];
    const middle = (low + high) / 2;
    const sides: { atLow: number; atHigh: number; atMiddle: number }[] = [];
    for (const ring of rings)
      for (let k = 0; k < ring.length; k++) {
        const [a, b] = [ring[k]!, ring[(k + 1) % ring.length]!];
        if (a.y > middle === b.y > middle) continue;
        const at = (y: number) => a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y);
        sides.push({ atLow: at(low), atHigh: at(high), atMiddle: at(middle) });
      }
    sides.sort((a, b) => a.atMiddle - b.atMiddle);
    for (let k = 0; k + 1 < sides.length; k += 2) {
      const [l, r] = [sides[k]!, sides[k + 1]!];
      const part = [vec(l.atLow, low), vec(r.atLow, low), vec(r.atHigh, high), vec(l.atHigh, high)];
      if (signedArea(part) > NOTHING_MM2) parts.push(part);
    }
  }
  return parts;
}

/** Both sides of a line through a towards b. */
function splitBy(part: Polygon, a: Vec, b: Vec): { left: Polygon; right: Polygon } {
  const along = minus(b, a);
  const side = part.map((p) => cross(along, minus(p, a)));
  const [left, right]: [Vec[], Vec[]] = [[], []];
  for (let i = 0; i < part.length; i++) {
    const j = (i + 1) % part.length;
    const [p, q, s, t] = [part[i]!, part[j]!, side[i]!, side[j]!];
    if (s >= 0) left.push(p);
    if (s <= 0) right.push(p);
    if ((s > 0 && t < 0) || (s < 0 && t > 0)) {
      const k = s / (s - t);
      const on = vec(p.x + (q.x - p.x) * k, p.y + (q.y - p.y) * k);
      left.push(on);
      right.push(on);
    }
  }
  return { left, right };
}

function extent(polygon: Polygon): { l: number; r: number; b: number; t: number } {
  let [l, r, b, t] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const { x, y } of polygon) {
    if (x < l) l = x;
    if (x > r) r = x;
    if (y < b) b = y;
    if (y > t) t = y;
  }
  return { l, r, b, t };
}

/** What is left of the parts when a convex outline (anticlockwise) is taken off. */
export function partsWithout(parts: ConvexParts, convex: Polygon): ConvexParts {
  const c = extent(convex);
  let isTouched = false;
  const next: Polygon[] = [];
  for (const part of parts) {
    const p = extent(part);
    if (p.l >= c.r || p.r <= c.l || p.b >= c.t || p.t <= c.b) {
      next.push(part);
      continue;
    }
    const kept: Polygon[] = [];
    let inside: Polygon = part;
    for (let i = 0; i < convex.length && inside.length >= 3; i++) {
      const { left, right } = splitBy(inside, convex[i]!, convex[(i + 1) % convex.length]!);
      if (right.length >= 3 && signedArea(right) > NOTHING_MM2) kept.push(right);
      inside = left;
    }
    // nothing of it lay in the outline: keep it whole rather than in pieces
    if (inside.length < 3 || signedArea(inside) <= NOTHING_MM2) next.push(part);
    else {
      isTouched = true;
      next.push(...kept);
    }
  }
  return isTouched ? next : parts;
}

/** Area of all parts, mm² when points are in mm. */
export const partsArea = (parts: ConvexParts): number => parts.reduce((s, p) => s + signedArea(p), 0);
