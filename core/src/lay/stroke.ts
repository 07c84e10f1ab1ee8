import { cross, distance, minus, signedArea, vec, type Polygon, type Vec } from '../geometry/index.js';

/** What presses: a squeegee pulled or pushed, the hard card along an edge, the finger (or the card's corner in paper towel) in a corner. */
export type StrokeTool = 'squeegee' | 'card' | 'finger';

/**
 * One movement of the hand. The blade stands square to the path and its middle runs along it: `path` has two points, since a blade is carried straight;
 * only a finger drawn along a bent edge has more. With one point it is a finger in a corner.
 */
export interface Stroke {
  readonly tool: StrokeTool;
  /** Width of the blade; of a finger in a corner, how far round it reaches. */
  readonly bladeMm: number;
  readonly path: Polygon;
  /** Pulled over the field, pushed along an edge. @source common practice: pull in the field, push along the edges */
  readonly how: 'pull' | 'push' | 'press';
  /** Along a bend: set down just where the stroke before it was lifted, and lifted just where the one after it is set down. */
  readonly joins?: { readonly before: boolean; readonly after: boolean };
}

const square = (along: Vec): Vec => {
  const l = Math.hypot(along.x, along.y);
  return vec(-along.y / l, along.x / l);
};
const plus = (a: Vec, b: Vec, times: number): Vec => vec(a.x + b.x * times, a.y + b.y * times);
const leftTurning = (ring: Polygon): Polygon => (signedArea(ring) < 0 ? [...ring].reverse() : ring);

/**
 * What a stroke presses, as convex outlines that overlap, anticlockwise, in no order: a rectangle for each straight piece, a triangle where a finger turns.
 * Strokes that join along a bend need no triangle: on its inner side, where the film is, they overlap by themselves.
 * @param lessMm the blade and both ends of the stroke are taken shorter by this at each end: where such narrowed strokes still leave no
 *   gap, neighbouring strokes overlap by twice that
 */
export function sweptParts(stroke: Stroke, lessMm = 0): Polygon[] {
  const { path, bladeMm } = stroke;
  if (path.length === 1) {
    const r = bladeMm - lessMm;
    const [c] = path;
    return [Array.from({ length: 24 }, (_, i) => vec(c!.x + r * Math.cos((i * Math.PI) / 12), c!.y + r * Math.sin((i * Math.PI) / 12)))];
  }
  const half = bladeMm / 2 - lessMm;
  const isClosed = path.length > 3 && distance(path[0]!, path.at(-1)!) < 1e-6;
  const parts: Polygon[] = [];
  for (let i = 0; i + 1 < path.length; i++) {
    const along = minus(path[i + 1]!, path[i]!);
    const l = Math.hypot(along.x, along.y);
    const unit = vec(along.x / l, along.y / l);
    const from = i === 0 && !isClosed && !stroke.joins?.before ? plus(path[i]!, unit, lessMm) : path[i]!;
    const to = i + 2 === path.length && !isClosed && !stroke.joins?.after ? plus(path[i + 1]!, unit, -lessMm) : path[i + 1]!;
    if ((to.x - from.x) * unit.x + (to.y - from.y) * unit.y <= 1e-6) continue;
    const n = square(along);
    parts.push(leftTurning([plus(from, n, -half), plus(to, n, -half), plus(to, n, half), plus(from, n, half)]));
    const after = path[i + 2] ?? (isClosed ? path[1]! : null);
    if (!after) continue;
    // turning on the spot, the blade sweeps a wedge on either side
    const m = square(minus(after, path[i + 1]!));
    for (const side of [half, -half]) {
      const wedge = [to, plus(to, n, side), plus(to, m, side)];
      if (Math.abs(signedArea(wedge)) > 0.01) parts.push(leftTurning(wedge));
    }
  }
  return parts;
}

/** Way of the blade's middle, mm. */
export const strokeLengthMm = (stroke: Stroke): number => stroke.path.slice(1).reduce((s, p, i) => s + distance(stroke.path[i]!, p), 0);

/** Whether a ring winds the way that has its inside on the left. */
export const turnsLeft = (a: Vec, b: Vec, c: Vec): boolean => cross(minus(b, a), minus(c, b)) > 0;
