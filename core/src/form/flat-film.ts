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

/** A thread from its lower to its upper end, by height on the pane: where it is, and how far from the anchor. */
interface Upright {
  readonly alongMm: number;
  readonly points: readonly { readonly u: number; readonly v: number; readonly s: number }[];
}
const upright = (s: Station): Upright => ({
  alongMm: s.alongMm,
  points: [
    ...[...s.down.points]
      .reverse()
      .slice(0, -1)
      .map((p) => ({ u: p.u, v: p.v, s: -p.sMm })),
    ...s.up.points.map((p) => ({ u: p.u, v: p.v, s: p.sMm })),
  ],
});

/** A thread at a height: between its points, beyond its ends straight on. */
function threadAt({ points }: Upright, v: number): { u: number; s: number } | null {
  if (points.length < 2) return null;
  let i = points.findIndex((p) => p.v >= v);
  if (i < 0) i = points.length - 1;
  if (i === 0) i = 1;
  const [a, b] = [points[i - 1]!, points[i]!];
  if (b.v === a.v) return null;
  const t = (v - a.v) / (b.v - a.v);
  return { u: a.u + t * (b.u - a.u), s: a.s + t * (b.s - a.s) };
}

/**
 * A point of the pane on the film before it is shrunk: along the anchor line, and along the thread that comes through it.
 * @returns x along the roll, y across it, anchor line at y = 0; null where no thread comes near
 */
export function onFlatFilm(stations: readonly Station[]): (p: Vec) => Vec | null {
  const threads = stations.map(upright);
  return (p) => {
    const met = threads.flatMap((t) => {
      const at = threadAt(t, p.y);
      return at ? [{ ...at, alongMm: t.alongMm }] : [];
    });
    if (met.length < 2) return null;
    let i = met.findIndex((m) => m.u >= p.x);
    if (i < 0) i = met.length - 1;
    if (i === 0) i = 1;
    const [a, b] = [met[i - 1]!, met[i]!];
    if (b.u === a.u) return null;
    const t = (p.x - a.u) / (b.u - a.u);
    return { x: a.alongMm + t * (b.alongMm - a.alongMm), y: a.s + t * (b.s - a.s) };
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
