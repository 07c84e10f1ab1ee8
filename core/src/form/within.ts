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

/** Whether a point lies in a polygon; crossings of a level ray counted. */
export function isWithin(polygon: Float64Array, u: number, v: number): boolean {
  let inside = false;
  for (let i = 0, j = polygon.length - 2; i < polygon.length; j = i, i += 2) {
    const ay = polygon[i + 1]!;
    const by = polygon[j + 1]!;
    if (ay > v === by > v) continue;
    const ax = polygon[i]!;
    if (u < ((polygon[j]! - ax) * (v - ay)) / (by - ay) + ax) inside = !inside;
  }
  return inside;
}
