import { cross, distance, minus, vec, type Vec } from './vec.js';
import { signedArea, type Polygon } from './polygon.js';

/** A corner of an outline and what leads to the next: `bulge` = tan(angle of the arc / 4), positive anticlockwise, 0 for a straight side. */
export interface ArcPoint extends Vec {
  readonly bulge: number;
}
export type ArcPath = readonly ArcPoint[];

/** Farthest that a flattened curve may leave the true one, mm. @source the brief of the trade: curves to within 0.2 mm; half of it is kept in hand */
export const CHORD_ERROR_MM = 0.1;

/** Centre and radius of the arc that leads from a to b. @returns null for a straight side */
export function arcOf(a: ArcPoint, b: Vec): { centre: Vec; radius: number; angle: number } | null {
  if (Math.abs(a.bulge) < 1e-9) return null;
  const chord = distance(a, b);
  const angle = 4 * Math.atan(a.bulge);
  const radius = chord / (2 * Math.sin(Math.abs(angle) / 2));
  // from the middle of the chord, to the left of a → b for a positive bulge under a half circle
  const k = (1 - a.bulge ** 2) / (4 * a.bulge);
  return { centre: vec((a.x + b.x) / 2 - (b.y - a.y) * k, (a.y + b.y) / 2 + (b.x - a.x) * k), radius, angle };
}

/** Area inside a path, exact for its arcs: chord polygon plus circular segments. @source plane geometry: segment r²(θ − sin θ)/2 */
export function pathArea(path: ArcPath): number {
  return path.reduce((sum, p, i) => {
    const arc = arcOf(p, path[(i + 1) % path.length]!);
    return sum + (arc ? (arc.radius ** 2 * (arc.angle - Math.sin(arc.angle))) / 2 : 0);
  }, signedArea(path));
}

/** Length round a path, exact for its arcs. */
export const pathLength = (path: ArcPath): number =>
  path.reduce((sum, p, i) => {
    const next = path[(i + 1) % path.length]!;
    const arc = arcOf(p, next);
    return sum + (arc ? arc.radius * Math.abs(arc.angle) : distance(p, next));
  }, 0);

/** The path as straight sides, each within `errorMm` of its arc. */
export function flatten(path: ArcPath, errorMm = CHORD_ERROR_MM): Polygon {
  return path.flatMap((p, i): Vec[] => {
    const arc = arcOf(p, path[(i + 1) % path.length]!);
    if (!arc) return [vec(p.x, p.y)];
    const most = 2 * Math.acos(Math.max(0, 1 - Math.min(errorMm, arc.radius) / arc.radius));
    const n = Math.max(2, Math.ceil(Math.abs(arc.angle) / most));
    const start = Math.atan2(p.y - arc.centre.y, p.x - arc.centre.x);
    return Array.from({ length: n }, (_, k) => {
      const t = start + (arc.angle * k) / n;
      return k === 0 ? vec(p.x, p.y) : vec(arc.centre.x + arc.radius * Math.cos(t), arc.centre.y + arc.radius * Math.sin(t));
    });
  });
}

/** The path walked the other way round. */
const reversed = (path: ArcPath): ArcPath => path.map((_, i) => ({ ...path[(path.length - i) % path.length]!, bulge: -path[path.length - 1 - i]!.bulge }));
/** Anticlockwise, whichever way it was given. */
export const anticlockwise = (path: ArcPath): ArcPath => (pathArea(path) < 0 ? reversed(path) : path);
/** Seen from the other side, still anticlockwise. */
export const mirroredPath = (path: ArcPath): ArcPath => reversed(path.map((p) => ({ x: -p.x, y: p.y, bulge: -p.bulge })));

/**
 * First pair of sides of a closed outline that cross or touch without being neighbours; null when it is simple. Sides are swept from left to right, so that
 * only those over the same stretch are held against each other: a thousand corners cost no more than a blink.
 */
export function crossingSides(polygon: Polygon): readonly [number, number] | null {
  const n = polygon.length;
  const end = (i: number) => polygon[(i + 1) % n]!;
  const left = Float64Array.from(polygon, (p, i) => Math.min(p.x, end(i).x));
  const right = Float64Array.from(polygon, (p, i) => Math.max(p.x, end(i).x));
  const low = Float64Array.from(polygon, (p, i) => Math.min(p.y, end(i).y));
  const high = Float64Array.from(polygon, (p, i) => Math.max(p.y, end(i).y));
  const order = Array.from({ length: n }, (_, i) => i).sort((a, b) => left[a]! - left[b]!);
  let open: number[] = [];
  let first: readonly [number, number] | null = null;
  for (const k of order) {
    open = open.filter((o) => right[o]! >= left[k]!);
    for (const o of open) {
      if (low[o]! > high[k]! || low[k]! > high[o]!) continue;
      const [i, j] = o < k ? [o, k] : [k, o];
      if (j - i < 2 || (i === 0 && j === n - 1)) continue;
      if (first && (i > first[0] || (i === first[0] && j >= first[1]))) continue;
      if (meet(polygon[i]!, end(i), polygon[j]!, end(j))) first = [i, j];
    }
    open.push(k);
  }
  return first;
}

/** Whether two segments share a point. */
function meet(a: Vec, b: Vec, c: Vec, d: Vec): boolean {
  const side = (p: Vec, q: Vec, r: Vec) => Math.sign(cross(minus(q, p), minus(r, p)));
  const on = (p: Vec, q: Vec, r: Vec) =>
    side(p, q, r) === 0 && r.x >= Math.min(p.x, q.x) && r.x <= Math.max(p.x, q.x) && r.y >= Math.min(p.y, q.y) && r.y <= Math.max(p.y, q.y);
  if (side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b) && side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) return true;
  return on(a, b, c) || on(a, b, d) || on(c, d, a) || on(c, d, b);
}

/** Whether every corner turns left: no corner points inwards. */
export const isConvex = (polygon: Polygon): boolean =>
  polygon.every((p, i) => {
    const [q, r] = [polygon[(i + 1) % polygon.length]!, polygon[(i + 2) % polygon.length]!];
    return cross(minus(q, p), minus(r, q)) > -1e-6 * distance(p, q) * distance(q, r);
  });

/** Corners beyond this many offsets are cut square, so that a needle-sharp corner needs no metre of film. @source common practice of offsetting: mitre limit */
const MITRE_LIMIT = 4;

/**
 * A simple outline with every side moved outwards (positive) or inwards (negative) by the same distance, corners kept sharp up to
 * the mitre limit. Sides that vanish are dropped.
 * @returns null when nothing is left or the offset would tear the outline in two: then another method must be chosen
 */
export function offsetOutline(polygon: Polygon, byMm: number): Polygon | null {
  let ring = withoutDoubles(polygon);
  for (let round = 0; round < polygon.length + 3; round++) {
    if (ring.length < 3) return null;
    const n = ring.length;
    const sides = ring.map((p, i) => {
      const along = minus(ring[(i + 1) % n]!, p);
      const l = Math.hypot(along.x, along.y);
      const out = vec((along.y / l) * byMm, (-along.x / l) * byMm);
      return { a: vec(p.x + out.x, p.y + out.y), b: vec(ring[(i + 1) % n]!.x + out.x, ring[(i + 1) % n]!.y + out.y), along: vec(along.x / l, along.y / l) };
    });
    const moved: { corner: Vec; extra: Vec | null }[] = sides.map((s, i) => cornerBetween(sides[(i + n - 1) % n]!, s, ring[i]!, byMm));
    const gone = sides.findIndex((s, i) => {
      const from = moved[i]!.extra ?? moved[i]!.corner;
      const to = moved[(i + 1) % n]!.corner;
      return (to.x - from.x) * s.along.x + (to.y - from.y) * s.along.y < -1e-9;
    });
    if (gone < 0) {
      const result = moved.flatMap((m) => (m.extra ? [m.corner, m.extra] : [m.corner]));
      return signedArea(result) > 1e-6 && !crossingSides(withoutDoubles(result)) ? result : null;
    }
    const shorter = withoutSide(ring, gone);
    if (!shorter) return null;
    ring = shorter;
  }
  return null;
}

const withoutDoubles = (polygon: Polygon): Polygon => polygon.filter((p, i) => distance(p, polygon[(i + 1) % polygon.length]!) > 1e-7);

/** The outline with side i taken away: its neighbours run on until they meet. */
function withoutSide(ring: Polygon, i: number): Polygon | null {
  const n = ring.length;
  if (n < 4) return null;
  const at = (k: number) => ring[(k + n) % n]!;
  const [p, q, r, s] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
  const before = minus(q, p);
  const after = minus(s, r);
  const det = cross(before, after);
  if (Math.abs(det) < 1e-12) return ring.filter((_, k) => k !== i);
  const t = cross(minus(r, p), after) / det;
  const meetAt = vec(p.x + before.x * t, p.y + before.y * t);
  return ring.flatMap((v, k) => (k === i ? [meetAt] : k === (i + 1) % n ? [] : [v]));
}

interface MovedSide {
  readonly a: Vec;
  readonly b: Vec;
  readonly along: Vec;
}
function cornerBetween(before: MovedSide, after: MovedSide, old: Vec, byMm: number): { corner: Vec; extra: Vec | null } {
  const det = cross(before.along, after.along);
  if (Math.abs(det) < 1e-9) return { corner: after.a, extra: null };
  const t = cross(minus(after.a, before.a), after.along) / det;
  const corner = vec(before.a.x + before.along.x * t, before.a.y + before.along.y * t);
  const far = distance(corner, old);
  if (det * byMm <= 0 || far <= MITRE_LIMIT * Math.abs(byMm)) return { corner, extra: null };
  // cut square across the corner at the limit
  const toCorner = vec((corner.x - old.x) / far, (corner.y - old.y) / far);
  const base = vec(old.x + toCorner.x * MITRE_LIMIT * Math.abs(byMm), old.y + toCorner.y * MITRE_LIMIT * Math.abs(byMm));
  const across = vec(-toCorner.y, toCorner.x);
  const cut = (p: Vec, along: Vec) => {
    const d = cross(along, across);
    const k = cross(minus(base, p), across) / d;
    return vec(p.x + along.x * k, p.y + along.y * k);
  };
  return { corner: cut(before.b, before.along), extra: cut(after.a, after.along) };
}
