import { boundingBox, type Polygon } from '../geometry/index.js';
import { checkRange } from '../ground/index.js';
import { acrossWay, layThread, type At, type ThreadPoint, type Way } from './thread.js';
import type { CurvedSurface } from './surface.js';

/** Where the film is laid down first: a straight line (geodesic) through a point of the pane. */
export interface Anchor {
  readonly through: At;
  readonly way: Way;
}

/** A thread from the anchor line up or down, and where it crosses the edge of the pane for the last time. */
export interface Thread {
  readonly points: readonly ThreadPoint[];
  /** Null where it never comes onto the pane. */
  readonly edge: ThreadPoint | null;
}
/** Both threads from one place on the anchor line. */
export interface Station {
  /** Along the anchor line from the point it is laid through, mm; to the right positive. */
  readonly alongMm: number;
  readonly at: At;
  readonly up: Thread;
  readonly down: Thread;
}

/** What the film has to lose in width, thread by thread, for one anchor line. */
export interface ShrinkField {
  readonly stations: readonly Station[];
  /** Film that has to go along the upper edge, mm: its share to lose, summed along the anchor line. Negative: it would have to stretch. */
  readonly slackAboveMm: number;
  readonly slackBelowMm: number;
}

export interface FieldOptions {
  /** Step along threads and between stations, mm. */
  readonly stepMm: number;
}

/** Whether a point lies in a polygon; crossings of a level ray counted. */
function isWithin(polygon: Polygon, { u, v }: At): boolean {
  let inside = false;
  for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
    const [a, b] = [polygon[i]!, polygon[j]!];
    if (a.y > v !== b.y > v && u < ((b.x - a.x) * (v - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

/** Trapezoids over stations that both have a value. */
function summed(stations: readonly Station[], of: (s: Station) => number | null): number {
  let sum = 0;
  for (let i = 1; i < stations.length; i++) {
    const [a, b] = [of(stations[i - 1]!), of(stations[i]!)];
    if (a !== null && b !== null) sum += ((a + b) / 2) * (stations[i]!.alongMm - stations[i - 1]!.alongMm);
  }
  return sum;
}

/**
 * What the film has to lose over a pane, when it is laid down along an anchor line and its threads hang straight from it.
 * @param outline of the pane in the parameters of the surface @throws OutOfRange
 */
export function shrinkField(surface: CurvedSurface, outline: Polygon, anchor: Anchor, { stepMm }: FieldOptions): ShrinkField {
  checkRange('Step', stepMm, 0.1, 200, 'mm');
  const box = boundingBox(outline);
  // the line runs on past a slanted side as far as the box: threads from there may still come onto the pane
  const isInBox = ({ u, v }: At) => u >= box.minX && u <= box.maxX && v >= box.minY && v <= box.maxY;
  const mostMm = 20 * (box.maxX - box.minX + box.maxY - box.minY);
  const follow = (from: At, way: Way) => layThread(surface, from, way, { stepMm, mostMm, isIn: isInBox, widthSlope: 0 });
  const thread = (from: At, way: Way): Thread => {
    const points = follow(from, way);
    let last = -1;
    points.forEach((p, i) => isWithin(outline, p) && (last = i));
    if (last < 0) return { points, edge: null };
    const [inside, outside] = [points[last]!, points[last + 1]];
    if (!outside) return { points, edge: inside };
    // between the two points the share to lose is as good as straight: halve until the edge is met
    let [low, high] = [0, 1];
    const mix = (k: number): ThreadPoint => {
      const of = (f: keyof ThreadPoint) => inside[f] + k * (outside[f] - inside[f]);
      return { sMm: of('sMm'), u: of('u'), v: of('v'), du: of('du'), dv: of('dv'), widthRatio: of('widthRatio') };
    };
    for (let i = 0; i < 12; i++) {
      const half = (low + high) / 2;
      if (isWithin(outline, mix(half))) low = half;
      else high = half;
    }
    return { points, edge: mix(low) };
  };
  const right = follow(anchor.through, anchor.way);
  const left = follow(anchor.through, { du: -anchor.way.du, dv: -anchor.way.dv });
  const line = [
    ...left
      .slice(1)
      .reverse()
      .map((p) => ({ ...p, sMm: -p.sMm, du: -p.du, dv: -p.dv })),
    ...right,
  ];
  const stations = line.map((p): Station => {
    const up = acrossWay(surface.at(p.u, p.v), p);
    return { alongMm: p.sMm, at: { u: p.u, v: p.v }, up: thread(p, up), down: thread(p, { du: -up.du, dv: -up.dv }) };
  });
  const loss = (t: Thread) => (t.edge ? 1 - t.edge.widthRatio : null);
  return { stations, slackAboveMm: summed(stations, (s) => loss(s.up)), slackBelowMm: summed(stations, (s) => loss(s.down)) };
}

/** Heights at which a balance is looked for, before the best are closed in on. @source house rule */
const LOOKS = 9;
const HALVINGS = 18;

/** An anchor line that leaves as much to lose below it as above. */
export interface BalancedAnchor {
  readonly anchor: Anchor;
  readonly heightMm: number;
  readonly field: ShrinkField;
}

/**
 * The height at which a level-starting anchor line through `u` leaves the same slack above and below. Going up, the slack below has to overtake that
 * above: where it is the other way round (on a saddle) the line is the worst, not the best, and is passed over.
 * @returns null where no height balances: on a flat or rolled pane nothing has to go, on a saddle it would have to stretch
 */
export function balancedAnchor(surface: CurvedSurface, outline: Polygon, u: number, options: FieldOptions): BalancedAnchor | null {
  const { minY, maxY } = boundingBox(outline);
  const at = (v: number) => {
    const anchor: Anchor = { through: { u, v }, way: { du: 1, dv: 0 } };
    const field = shrinkField(surface, outline, anchor, options);
    return { v, anchor, field, gap: field.slackBelowMm - field.slackAboveMm, worst: Math.max(field.slackBelowMm, field.slackAboveMm) };
  };
  type Look = ReturnType<typeof at>;
  const looks = Array.from({ length: LOOKS }, (_, i) => at(minY + ((i + 0.5) / LOOKS) * (maxY - minY)));
  let best: Look | null = null;
  for (let i = 1; i < looks.length; i++) {
    let [low, high] = [looks[i - 1]!, looks[i]!];
    if (!(low.gap < 0 && high.gap >= 0)) continue;
    for (let k = 0; k < HALVINGS && high.v - low.v > 0.05; k++) {
      const half = at((low.v + high.v) / 2);
      if (half.gap < 0) low = half;
      else high = half;
    }
    if (!best || high.worst < best.worst) best = high;
  }
  return best && { anchor: best.anchor, heightMm: best.v - minY, field: best.field };
}

/**
 * Slack along one edge by three tapes, anchor at half height. @source leading order of the shrink field; common practice
 * @param horizontalBowMm at the middle of the width; vertical at the middle of the height
 */
export function quickSlackMm(widthMm: number, horizontalBowMm: number, verticalBowMm: number): number {
  return (8 * horizontalBowMm * verticalBowMm) / widthMm;
}
