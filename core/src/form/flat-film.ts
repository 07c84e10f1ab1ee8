import { boundingBox, common, offsetOutline, regionOf, type Polygon, type Vec } from '../geometry/index.js';
import type { Station } from './shrink-field.js';

/**
 * Allowances of formed film, mm.
 * @source common practice: drop glass 6–20 below the inner belt seal, 1–2 under its top edge, formed 25–50 higher and 13 past the sides; fixed glass onto the dots.
 *   What is gripped above and below while forming: house rule
 */
export const FORMING = { underTopMm: 1.5, belowSealMm: 13, raiseMm: 38, pastSidesMm: 13, ontoDotsMm: 8, gripMm: 25 };

/** Where the film will lie in the end, in the plane of the pane; null when nothing is left inside the gap. */
export function finishedOutline(outline: Polygon, seat: 'fixed' | 'drop', dotBorderMm: number | null, edgeGapMm: number): Polygon | null {
  if (seat === 'fixed') return offsetOutline(outline, -(dotBorderMm === null ? edgeGapMm : Math.max(edgeGapMm, dotBorderMm - FORMING.ontoDotsMm)));
  const inset = offsetOutline(outline, -FORMING.underTopMm);
  if (!inset) return null;
  const { minY, maxY } = boundingBox(inset);
  // the lower edge goes on down behind the seal; what is rounded there goes with it
  const split = minY + 0.25 * (maxY - minY);
  return inset.map((p) => (p.y < split ? { x: p.x, y: p.y - FORMING.underTopMm - FORMING.belowSealMm } : p));
}

/** A thread from its lower to its upper end: heights on the pane, places across it, and how far from the anchor. */
interface Upright {
  readonly alongMm: number;
  readonly v: Float64Array;
  readonly u: Float64Array;
  readonly s: Float64Array;
}
function upright({ alongMm, down, up }: Station): Upright {
  const [below, above] = [down.points, up.points];
  const n = below.length - 1 + above.length;
  const [v, u, s] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  for (let i = 0; i < n; i++) {
    const isBelow = i < below.length - 1;
    const p = isBelow ? below[below.length - 1 - i]! : above[i - below.length + 1]!;
    v[i] = p.v;
    u[i] = p.u;
    s[i] = isBelow ? -p.sMm : p.sMm;
  }
  return { alongMm, v, u, s };
}

/** The upper of the two points of a thread between which a height lies; at its ends the last two. */
function pieceAt(v: Float64Array, height: number): number {
  let [low, high] = [1, v.length - 1];
  while (low < high) {
    const half = (low + high) >> 1;
    if (v[half]! >= height) high = half;
    else low = half + 1;
  }
  return low;
}

/**
 * A point of the pane on the film before it is shrunk: along the anchor line, and along the thread that comes through it.
 * @returns x along the roll, y across it, anchor line at y = 0; null where no thread comes near
 */
export function onFlatFilm(stations: readonly Station[]): (p: Vec) => Vec | null {
  const threads = stations.map(upright).filter((t) => t.v.length >= 2);
  /** Where a thread is at a height, between its points or straight on, and how far from the anchor. */
  const at = ({ v, u, s }: Upright, height: number): { u: number; s: number } => {
    const i = pieceAt(v, height);
    const t = v[i]! === v[i - 1]! ? 0 : (height - v[i - 1]!) / (v[i]! - v[i - 1]!);
    return { u: u[i - 1]! + t * (u[i]! - u[i - 1]!), s: s[i - 1]! + t * (s[i]! - s[i - 1]!) };
  };
  return (p) => {
    if (threads.length < 2) return null;
    // threads stand side by side from left to right: the first that is not left of the point
    let [low, high] = [1, threads.length - 1];
    while (low < high) {
      const half = (low + high) >> 1;
      if (at(threads[half]!, p.y).u >= p.x) high = half;
      else low = half + 1;
    }
    const [left, right] = [threads[low - 1]!, threads[low]!];
    const [a, b] = [at(left, p.y), at(right, p.y)];
    if (b.u === a.u) return null;
    const t = (p.x - a.u) / (b.u - a.u);
    return { x: left.alongMm + t * (right.alongMm - left.alongMm), y: a.s + t * (b.s - a.s) };
  };
}

/** Points added on long sides, so that a side that bends on the film is seen to. */
export function densified(polygon: Polygon, mostMm: number): Polygon {
  return polygon.flatMap((a, i) => {
    const b = polygon[(i + 1) % polygon.length]!;
    const n = Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / mostMm));
    return Array.from({ length: n }, (_, k) => ({ x: a.x + (k / n) * (b.x - a.x), y: a.y + (k / n) * (b.y - a.y) }));
  });
}

/** The outline on the film before it is shrunk. */
export function flatOutline(stations: readonly Station[], outline: Polygon): Polygon {
  const to = onFlatFilm(stations);
  return densified(outline, 25).flatMap((p) => to(p) ?? []);
}

/** The part of an outline above or below a level line; null when nothing is there. */
export function partOf(outline: Polygon, y: number, side: 'above' | 'below'): Polygon | null {
  const { minX, maxX, minY, maxY } = boundingBox(outline);
  const [low, high] = side === 'above' ? [y, maxY + 1] : [minY - 1, y];
  if (high <= low) return null;
  const half: Polygon = [
    { x: minX - 1, y: low },
    { x: maxX + 1, y: low },
    { x: maxX + 1, y: high },
    { x: minX - 1, y: high },
  ];
  return common(regionOf(outline), regionOf(half))[0]?.[0] ?? null;
}

/** Height of the half-way line: between the lowest and the highest place of what is covered. */
export const halfHeight = (finished: Polygon): number => {
  const { minY, maxY } = boundingBox(finished);
  return (minY + maxY) / 2;
};
