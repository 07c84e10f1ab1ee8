import { regionArea, signedArea, type Polygon, type Region, type Vec } from '../geometry/index.js';

const lengthOf = (ring: Polygon): number =>
  ring.reduce((s, p, i) => s + Math.hypot(ring[(i + 1) % ring.length]!.x - p.x, ring[(i + 1) % ring.length]!.y - p.y), 0);

/**
 * About how wide the strokes of one part of a figure are: of the ribbon that has its area and its outline; a ring’s is exact, and so is a bar’s.
 * @source plane geometry: a bar of width w and length l has area wl and half outline w + l; a closed ribbon area wl and half outline l
 */
export function ribbonWidthMm(part: Region[number]): number {
  const area = regionArea([part]);
  const half = part.reduce((s, r) => s + lengthOf(r), 0) / 2;
  if (part.length > 1) return area / half;
  return (half - Math.sqrt(Math.max(0, half * half - 4 * area))) / 2;
}

/** So many places of an outline are looked at, evenly along it; of one with no more sides than that, every side. */
const PLACES = 800;
const MOST_SIDES = 800;
/** Two sides bound a stroke where they run against each other within this much; farther apart they meet at a corner. @source house rule */
const AGAINST_COS = Math.cos((15 * Math.PI) / 180);
/** A stretch counts that is at least so many times as long as it is wide: a point is no stroke. @source house rule */
const LENGTHS = 1;

interface Edge {
  readonly a: Vec;
  readonly ux: number;
  readonly uy: number;
  readonly length: number;
}
/** Sides with the film on their left. */
function edgesOf(part: Region[number]): Edge[] {
  return part.flatMap((ring, i): Edge[] => {
    const turned = signedArea(ring) > 0 === (i === 0) ? ring : [...ring].reverse();
    return turned.flatMap((a, k): Edge[] => {
      const b = turned[(k + 1) % turned.length]!;
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      return length > 1e-9 ? [{ a, ux: (b.x - a.x) / length, uy: (b.y - a.y) / length, length }] : [];
    });
  });
}

/** How wide the film is where it is looked at squarely from one of its sides; null: what is opposite runs another way. */
function acrossFrom(edges: readonly Edge[], own: number, at: number): number | null {
  const e = edges[own]!;
  const [x, y] = [e.a.x + e.ux * at, e.a.y + e.uy * at];
  // square to the side, into the film
  const [nx, ny] = [-e.uy, e.ux];
  let nearest = Infinity;
  let against = 0;
  for (let i = 0; i < edges.length; i++) {
    if (i === own) continue;
    const o = edges[i]!;
    const turn = nx * o.uy - ny * o.ux;
    if (Math.abs(turn) < 1e-12) continue;
    const [dx, dy] = [o.a.x - x, o.a.y - y];
    const far = (dx * o.uy - dy * o.ux) / turn;
    const along = (dx * ny - dy * nx) / turn;
    if (far <= 1e-9 || far >= nearest || along < 0 || along > o.length) continue;
    [nearest, against] = [far, -(e.ux * o.ux + e.uy * o.uy)];
  }
  return against >= AGAINST_COS ? nearest : null;
}

/**
 * How wide the narrowest stretch of one part of a figure is, that is as long as it is wide: looked at squarely from every side to what runs against it. Shapes
 * without such a pair of sides (a triangle) have the width of their ribbon.
 * @source house rule, docs/models/signs.md; bars, rings and discs by plane geometry
 */
export function narrowestStrokeMm(part: Region[number]): number {
  const edges = edgesOf(part);
  const whole = edges.reduce((sum, e) => sum + e.length, 0);
  const seen: { width: number; length: number }[] = [];
  // every side is looked from; of very many, so many places evenly along them all
  const step = whole / PLACES;
  let due = 0;
  edges.forEach((e, i) => {
    const isEvery = edges.length <= MOST_SIDES;
    const count = isEvery ? Math.max(1, Math.ceil(e.length / step)) : Math.floor((due + e.length) / step);
    if (!isEvery) due = due + e.length - count * step;
    for (let k = 0; k < count; k++) {
      const width = acrossFrom(edges, i, (e.length * (k + 0.5)) / count);
      if (width !== null) seen.push({ width, length: isEvery ? e.length / count : step });
    }
  });
  seen.sort((a, b) => a.width - b.width);
  let long = 0;
  for (const { width, length } of seen) {
    long += length;
    // both its sides
    if (long >= 2 * LENGTHS * width) return width;
  }
  return ribbonWidthMm(part);
}
