import { cross, dot, minus, vec, type Vec } from './vec.js';

/** A closed outline, anticlockwise when y points up, without repeating the first point. */
export type Polygon = readonly Vec[];

/** Signed area, mm² when points are in mm; positive when anticlockwise. */
export function signedArea(polygon: Polygon): number {
  let twice = 0;
  for (let i = 0; i < polygon.length; i++) twice += cross(polygon[i]!, polygon[(i + 1) % polygon.length]!);
  return twice / 2;
}

/** Smallest upright box round the outline. @throws RangeError on an empty outline */
export function boundingBox(polygon: Polygon): { minX: number; minY: number; maxX: number; maxY: number } {
  if (polygon.length === 0) throw new RangeError('An empty outline has no box.');
  const xs = polygon.map((p) => p.x);
  const ys = polygon.map((p) => p.y);
  return { minX: Math.min(...xs), minY: Math.min(...ys), maxX: Math.max(...xs), maxY: Math.max(...ys) };
}

/** The outline seen from its other side: mirrored across the upright axis, kept anticlockwise. */
export const mirrored = (polygon: Polygon): Polygon => polygon.map((p) => vec(-p.x, p.y)).reverse();

/** Inner angle at corner i, degrees. */
export function cornerAngleDeg(polygon: Polygon, i: number): number {
  const n = polygon.length;
  const here = polygon[i]!;
  const a = minus(polygon[(i + n - 1) % n]!, here);
  const b = minus(polygon[(i + 1) % n]!, here);
  return (Math.atan2(Math.abs(cross(b, a)), dot(a, b)) * 180) / Math.PI;
}

/**
 * Convex outline with each side moved inwards by its own distance (mm). Side i runs from point i to point i + 1.
 * @returns null when nothing is left
 */
export function insetConvex(polygon: Polygon, insetMm: readonly number[]): Polygon | null {
  const n = polygon.length;
  const lines = polygon.map((p, i) => {
    const along = minus(polygon[(i + 1) % n]!, p);
    const length = Math.hypot(along.x, along.y);
    const inward = vec(-along.y / length, along.x / length);
    const by = insetMm[i] ?? 0;
    return { at: vec(p.x + inward.x * by, p.y + inward.y * by), along, inward };
  });
  const corners = lines.map((line, i) => {
    const before = lines[(i + n - 1) % n]!;
    const det = cross(before.along, line.along);
    if (Math.abs(det) < 1e-12) return line.at;
    const t = cross(minus(line.at, before.at), line.along) / det;
    return vec(before.at.x + before.along.x * t, before.at.y + before.along.y * t);
  });
  const stillInside = corners.every((c) => lines.every((l) => dot(minus(c, l.at), l.inward) > -1e-6));
  return stillInside && signedArea(corners) > 0 ? corners : null;
}

/** Whether every point lies strictly inside a convex outline (anticlockwise). */
export const liesInConvex = (points: Polygon, outline: Polygon): boolean =>
  outline.every((a, i) => {
    const along = minus(outline[(i + 1) % outline.length]!, a);
    return points.every((p) => cross(along, minus(p, a)) > 0);
  });

/** Where an outline begins and ends over a place, from below; null beside it. */
export function uprightSpanAt(outline: Polygon, x: number): readonly [number, number] | null {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [a, b] = [outline[i]!, outline[j]!];
    if (a.x > x === b.x > x) continue;
    const y = a.y + ((x - a.x) / (b.x - a.x)) * (b.y - a.y);
    if (y < low) low = y;
    if (y > high) high = y;
  }
  return high > low ? [low, high] : null;
}
