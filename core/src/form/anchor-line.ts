import type { AnchorChoice } from '@yellow-pane/contracts';
import { boundingBox, type Polygon } from '../geometry/index.js';
import { acrossWay, layThread, unitWay, type At, type Way } from './thread.js';
import { dot3, metricOf, type CurvedSurface } from './surface.js';
import { isWithin, packed } from './within.js';

/** Where the film is laid down first: a straight line (geodesic) through a point of the pane. */
export interface Anchor {
  readonly through: At;
  readonly way: Way;
}

/** A point of an anchor line, the way it runs there, and how much it turns. */
export interface LinePoint extends At, Way {
  /** Along the line from where it was begun, mm; to the right positive. */
  readonly alongMm: number;
  /** Geodesic curvature, 1/mm: positive where it turns upwards; 0 on a straight line. */
  readonly turnPerMm: number;
}

const beyond = (outline: Polygon) => {
  const b = boundingBox(outline);
  // the line runs on past a slanted side as far as the box: threads from there may still come onto the pane
  return {
    ...b,
    isIn: ({ u, v }: At) => u >= b.minX && u <= b.maxX && v >= b.minY - 1 && v <= b.maxY + 1,
    mostMm: 20 * (b.maxX - b.minX + b.maxY - b.minY),
  };
};

/** A straight line right across a pane, from left to right. */
export function straightLine(surface: CurvedSurface, outline: Polygon, anchor: Anchor, stepMm: number): LinePoint[] {
  const { isIn, mostMm } = beyond(outline);
  const follow = (way: Way) => layThread(surface, anchor.through, way, { stepMm, mostMm, isIn, widthSlope: 0 });
  const right = follow(anchor.way);
  const left = follow({ du: -anchor.way.du, dv: -anchor.way.dv });
  const point = (p: (typeof right)[number], sign: 1 | -1): LinePoint => ({
    u: p.u,
    v: p.v,
    du: sign * p.du,
    dv: sign * p.dv,
    alongMm: sign * p.sMm,
    turnPerMm: 0,
  });
  return [
    ...left
      .slice(1)
      .reverse()
      .map((p) => point(p, -1)),
    ...right.map((p) => point(p, 1)),
  ];
}

/**
 * A line that is not straight on the glass: a parabola through three heights in the plane of the pane, left, middle and right. It turns, and the film has
 * to follow: its geodesic curvature is told at each point.
 * @source do Carmo, Differential Geometry of Curves and Surfaces, 4-4 (from memory)
 */
export function forcedLine(surface: CurvedSurface, outline: Polygon, heights: readonly [number, number, number], stepMm: number): LinePoint[] {
  const { minX, maxX } = boundingBox(outline);
  const half = (maxX - minX) / 2;
  const mid = minX + half;
  const [l, m, r] = heights;
  const [slope, bend] = [(r - l) / 2 / half, (r + l - 2 * m) / half ** 2];
  const at = (u: number): LinePoint => {
    const t = u - mid;
    const [v, dv, ddv] = [m + slope * t + (bend * t * t) / 2, slope + bend * t, bend];
    const p = surface.at(u, v);
    const way = unitWay(p, { du: 1, dv });
    const up = acrossWay(p, way);
    const bendOf = (k: 0 | 1 | 2) => p.ruu[k] + 2 * dv * p.ruv[k] + dv * dv * p.rvv[k] + ddv * p.rv[k];
    const upOf = (k: 0 | 1 | 2) => up.du * p.ru[k] + up.dv * p.rv[k];
    const { e, f, g } = metricOf(p);
    const speed2 = e + 2 * f * dv + g * dv * dv;
    return { u, v, ...way, alongMm: 0, turnPerMm: dot3([bendOf(0), bendOf(1), bendOf(2)], [upOf(0), upOf(1), upOf(2)]) / speed2 };
  };
  const n = Math.max(4, Math.ceil((maxX - minX) / stepMm));
  const out: LinePoint[] = [];
  for (let i = 0; i <= n; i++) {
    const here = at(minX + (i / n) * (maxX - minX));
    const last = out.at(-1);
    out.push({ ...here, alongMm: last ? last.alongMm + chord(surface, last, here) : 0 });
  }
  // counted from the middle, as a straight line is
  const middle = out[Math.floor(n / 2)]!.alongMm;
  return out.map((p) => ({ ...p, alongMm: p.alongMm - middle }));
}
/** Arc between two near points: the chord made longer by what its two halves miss it. */
function chord(surface: CurvedSurface, a: At, b: At): number {
  const [p, q, m] = [surface.at(a.u, a.v).r, surface.at(b.u, b.v).r, surface.at((a.u + b.u) / 2, (a.v + b.v) / 2).r];
  const d = (x: typeof p, y: typeof p) => Math.hypot(x[0] - y[0], x[1] - y[1], x[2] - y[2]);
  const [whole, halves] = [d(p, q), d(p, m) + d(m, q)];
  return halves + (halves - whole) / 3;
}

/**
 * The straight line through two points of the pane: shot from the first, its direction corrected until it hits.
 * @returns null when no straight line between them stays near the pane
 */
export function lineThrough(surface: CurvedSurface, outline: Polygon, a: At, b: At, stepMm: number): Anchor | null {
  const { minX, maxX } = boundingBox(outline);
  const height = (slope: number): number => {
    const points = layThread(surface, a, { du: Math.sign(b.u - a.u), dv: slope }, { stepMm, mostMm: 4 * (maxX - minX), isIn: ({ u }) => Math.abs(u - a.u) <= Math.abs(b.u - a.u), widthSlope: 0 }); // prettier-ignore
    const last = points.at(-1)!;
    return last.v + ((b.u - last.u) * last.dv) / last.du;
  };
  let s0 = (b.v - a.v) / Math.abs(b.u - a.u);
  let f0 = height(s0) - b.v;
  let s1 = s0 - f0 / Math.abs(b.u - a.u);
  for (let i = 0; i < 12; i++) {
    const f1 = height(s1) - b.v;
    if (!Number.isFinite(f1)) return null;
    if (Math.abs(f1) < 0.01 || f1 === f0) break;
    [s0, s1, f0] = [s1, s1 - (f1 * (s1 - s0)) / (f1 - f0), f1];
  }
  // told by its middle, so that it runs the same both ways
  const all = straightLine(surface, outline, { through: a, way: { du: Math.sign(b.u - a.u), dv: s1 } }, stepMm);
  const line = b.u > a.u ? all : all.map((p) => ({ ...p, du: -p.du, dv: -p.dv })).reverse();
  const mid = (minX + maxX) / 2;
  const i = line.findIndex((p) => p.u >= mid);
  if (i <= 0) return null;
  const [p, q] = [line[i - 1]!, line[i]!];
  const t = (mid - p.u) / (q.u - p.u);
  return { through: { u: mid, v: p.v + t * (q.v - p.v) }, way: { du: p.du + t * (q.du - p.du), dv: p.dv + t * (q.dv - p.dv) } };
}

/** Room above the pane in which the line of an arch may run where the pane bends away from it, mm. @source house rule: less than the room that the surface is told for */
const ARCH_ROOM_MM = 40;

/**
 * The line of an arch: straight on the glass, level over the highest place of the pane in the middle of its width. Where the upper edge falls away from it film hangs free
 * down to the glass and is pressed on from there.
 */
export function archLine(surface: CurvedSurface, outline: Polygon, stepMm: number): LinePoint[] {
  const { minX, maxX, minY, maxY } = boundingBox(outline);
  const room: Polygon = [
    { x: minX, y: minY },
    { x: maxX, y: minY },
    { x: maxX, y: maxY + ARCH_ROOM_MM },
    { x: minX, y: maxY + ARCH_ROOM_MM },
  ];
  return straightLine(surface, room, { through: { u: (minX + maxX) / 2, v: maxY }, way: { du: 1, dv: 0 } }, stepMm);
}

/** Height of a line over a place, between its points; beyond its ends as at the end. */
export function heightOn(line: readonly LinePoint[], u: number): number {
  const i = line.findIndex((p) => p.u >= u);
  if (i < 0) return line.at(-1)!.v;
  if (i === 0) return line[0]!.v;
  const [p, q] = [line[i - 1]!, line[i]!];
  return p.v + ((u - p.u) / (q.u - p.u)) * (q.v - p.v);
}

/** A line that was chosen lies on the pane over at least this share of its width: one end may run out at a crown or a corner. @source house rule */
const ON_PANE_FRAC = 1 / 3;

/**
 * What a line that was chosen is on this pane. Balanced ones are found elsewhere.
 * @returns null when it does not lie on it from side to side, as when the pane was taped anew and is smaller now
 */
export function chosenLine(
  surface: CurvedSurface,
  outline: Polygon,
  choice: Extract<AnchorChoice, { kind: 'through' | 'forced' }>,
  stepMm: number,
): LinePoint[] | null {
  const { minX, maxX } = boundingBox(outline);
  const polygon = packed(outline);
  const isOnPane = (line: readonly LinePoint[]): boolean => {
    const isIn = line.map((p) => isWithin(polygon, p.u, p.v));
    const onMm = line.reduce((sum, p, i) => sum + (i > 0 && isIn[i] && isIn[i - 1] ? Math.abs(p.u - line[i - 1]!.u) : 0), 0);
    return onMm >= ON_PANE_FRAC * (maxX - minX);
  };
  const lineOf = (): LinePoint[] | null => {
    if (choice.kind === 'forced') return forcedLine(surface, outline, [choice.leftMm, choice.middleMm, choice.rightMm], stepMm);
    const anchor = lineThrough(surface, outline, { u: minX, v: choice.leftMm }, { u: maxX, v: choice.rightMm }, stepMm);
    return anchor && straightLine(surface, outline, anchor, stepMm);
  };
  const line = lineOf();
  return line && isOnPane(line) ? line : null;
}
