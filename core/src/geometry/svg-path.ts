import SvgPath from 'svgpath';
import { distance, vec, type Vec } from './vec.js';
import type { Polygon } from './polygon.js';
import { CHORD_ERROR_MM } from './path.js';

/** Rings of a drawn figure, or the sentence that says what does not read. */
export type FigureRings = { readonly ok: true; readonly rings: readonly Polygon[] } | { readonly ok: false; readonly message: string };

/** Most points that a figure may have once its curves are flattened. */
const MOST_POINTS = 20_000;
/** Farther from its origin no figure is drawn, in whatever unit. */
const FARTHEST = 1e6;

/**
 * The rings of an SVG path, its curves flattened, y turned up. Every subpath is taken as closed: a figure is cut, so it has an inside.
 * @param scale millimetres in one unit of the path: decides how finely curves are flattened
 */
export function ringsFromSvgPath(d: string, scale = 1): FigureRings {
  let path;
  try {
    path = new SvgPath(d).abs();
    // limits before work: a curve over a light year would be cut into as many chords
    let isFar = false;
    path.iterate((segment) => {
      isFar ||= segment.some((n) => typeof n === 'number' && !(Math.abs(n) <= FARTHEST));
    });
    if (isFar) return { ok: false, message: `The path reaches farther than ${FARTHEST} units: is it the right figure?` };
    path.unarc().unshort();
  } catch (error) {
    return { ok: false, message: `The path does not read: ${(error as Error).message}` };
  }
  const fault = (path as unknown as { err?: string }).err;
  if (fault) return { ok: false, message: `The path does not read: ${fault.replace(/^SvgPath: /, '')}.` };
  const rings: Vec[][] = [];
  let points = 0;
  path.iterate((segment, _i, x, y) => {
    if (points > MOST_POINTS) return;
    const [code, ...n] = segment as [string, ...number[]];
    const from = vec(x, y);
    const ring = rings.at(-1);
    const push = (p: Vec) => {
      points++;
      if (ring) ring.push(p);
    };
    if (code === 'M') rings.push([vec(n[0]!, n[1]!)]);
    else if (code === 'L') push(vec(n[0]!, n[1]!));
    else if (code === 'H') push(vec(n[0]!, from.y));
    else if (code === 'V') push(vec(from.x, n[0]!));
    else if (code === 'Q') bezier([from, vec(n[0]!, n[1]!), vec(n[2]!, n[3]!)], scale).forEach(push);
    else if (code === 'C') bezier([from, vec(n[0]!, n[1]!), vec(n[2]!, n[3]!), vec(n[4]!, n[5]!)], scale).forEach(push);
  });
  if (points > MOST_POINTS)
    return { ok: false, message: `The figure has more than ${MOST_POINTS} points, the most that are taken. Draw it with fewer curves.` };
  const closed = rings.map((r) => withoutDoubles(r.map((p) => vec(p.x, -p.y)))).filter((r) => r.length >= 3);
  if (closed.length === 0) return { ok: false, message: 'The path encloses nothing: a figure to be cut out needs an inside.' };
  return { ok: true, rings: closed };
}

const withoutDoubles = (ring: readonly Vec[]): Vec[] => ring.filter((p, i) => distance(p, ring[(i + ring.length - 1) % ring.length]!) > 1e-9);

/** A Bézier curve as points after its start, each chord within the error of the curve. @source bound on the flattening error by second differences: n ≥ √(d (d−1) M / (8 e)), Farin, Curves and Surfaces (from memory) */
function bezier(control: readonly Vec[], scale: number): Vec[] {
  const degree = control.length - 1;
  let most = 0;
  for (let i = 0; i + 2 < control.length; i++) {
    const [a, b, c] = [control[i]!, control[i + 1]!, control[i + 2]!];
    most = Math.max(most, Math.hypot(a.x - 2 * b.x + c.x, a.y - 2 * b.y + c.y) * scale);
  }
  const n = Math.max(1, Math.ceil(Math.sqrt((degree * (degree - 1) * most) / (8 * CHORD_ERROR_MM))));
  return Array.from({ length: Math.min(n, MOST_POINTS + 1) }, (_, i) => {
    let points = [...control];
    const t = (i + 1) / n;
    while (points.length > 1) points = points.slice(1).map((q, k) => vec(points[k]!.x + (q.x - points[k]!.x) * t, points[k]!.y + (q.y - points[k]!.y) * t));
    return points[0]!;
  });
}
