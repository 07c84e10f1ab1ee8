import { vec, type Polygon, type Vec } from '../geometry/index.js';

/** From x to x. */
export type Span = readonly [number, number];

/** A blade that touches the stop line is not over it. */
const TOUCH_MM = 0.02;

/** Turned by −angle about the origin, so that the direction `angle` becomes x. */
export const turned = (p: Vec, angle: number): Vec => vec(p.x * Math.cos(angle) + p.y * Math.sin(angle), p.y * Math.cos(angle) - p.x * Math.sin(angle));

/** Whether a point lies in an odd number of rings. */
export function isInside(rings: readonly Polygon[], p: Vec): boolean {
  let inside = false;
  for (const ring of rings)
    for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
      const [a, b] = [ring[i]!, ring[j]!];
      if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
    }
  return inside;
}

/**
 * Where an upright blade from `low` to `high` lies wholly inside: the spans of x, in order.
 * Between two neighbouring x at which an edge enters or leaves the band nothing changes, so one look at the middle tells for all of it.
 * @param rings outline and holes, mm
 */
export function bladeSpans(rings: readonly Polygon[], low: number, high: number): Span[] {
  const [y0, y1] = [low + TOUCH_MM, high - TOUCH_MM];
  const blocked: Span[] = [];
  let [least, most] = [Infinity, -Infinity];
  for (const ring of rings)
    for (let i = 0; i < ring.length; i++) {
      const [a, b] = [ring[i]!, ring[(i + 1) % ring.length]!];
      least = Math.min(least, a.x);
      most = Math.max(most, a.x);
      if (Math.max(a.y, b.y) <= y0 || Math.min(a.y, b.y) >= y1) continue;
      const at = (y: number) => (a.y === b.y ? a.x : a.x + ((b.x - a.x) * (y - a.y)) / (b.y - a.y));
      const clip = (p: Vec) => (p.y < y0 ? at(y0) : p.y > y1 ? at(y1) : p.x);
      const [p, q] = [clip(a), clip(b)];
      blocked.push([Math.min(p, q), Math.max(p, q)]);
    }
  blocked.sort((a, b) => a[0] - b[0]);
  const spans: Span[] = [];
  let x = least;
  for (const [from, to] of [...blocked, [most, most] as const]) {
    if (from - x > TOUCH_MM && isInside(rings, vec((x + from) / 2, (y0 + y1) / 2))) spans.push([x, from]);
    x = Math.max(x, to);
  }
  return spans;
}

/** Lower edges of lanes a blade wide that cover from `low` to `high` and overlap by at least `overlap`; the outer two lie flush. Empty: the blade is wider than that. */
export function laneFeet(low: number, high: number, blade: number, overlap: number): number[] {
  const room = high - low - blade;
  if (room < -TOUCH_MM) return [];
  const gaps = Math.ceil(room / (blade - overlap) - 1e-9);
  if (gaps <= 0) return [low];
  return Array.from({ length: gaps + 1 }, (_, i) => low + (room * i) / gaps);
}
