import type { Polygon } from '../geometry/index.js';

/** An outline for whoever asks a hundred thousand times: x and y of its corners by turns. */
export function packed(outline: Polygon): Float64Array {
  const out = new Float64Array(2 * outline.length);
  outline.forEach((p, i) => {
    out[2 * i] = p.x;
    out[2 * i + 1] = p.y;
  });
  return out;
}

/** So near to a side a point lies on it, mm. */
const ON_MM = 1e-6;

/** Whether a point lies on a side. */
function isOnSide(polygon: Float64Array, u: number, v: number): boolean {
  for (let i = 0, j = polygon.length - 2; i < polygon.length; j = i, i += 2) {
    const [ax, ay] = [polygon[i]!, polygon[i + 1]!];
    const [dx, dy] = [polygon[j]! - ax, polygon[j + 1]! - ay];
    const long = dx * dx + dy * dy;
    const t = long > 0 ? Math.min(1, Math.max(0, ((u - ax) * dx + (v - ay) * dy) / long)) : 0;
    if (Math.hypot(u - ax - t * dx, v - ay - t * dy) <= ON_MM) return true;
  }
  return false;
}

/** Whether a point lies in a polygon or on its edge; crossings of a level ray counted. A ray alone would take the lower and the left sides in and leave the others out. */
export function isWithin(polygon: Float64Array, u: number, v: number): boolean {
  let inside = false;
  for (let i = 0, j = polygon.length - 2; i < polygon.length; j = i, i += 2) {
    const ay = polygon[i + 1]!;
    const by = polygon[j + 1]!;
    if (ay > v === by > v) continue;
    const ax = polygon[i]!;
    if (u < ((polygon[j]! - ax) * (v - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside || isOnSide(polygon, u, v);
}
