import { boundingBox, type Polygon } from '../geometry/index.js';
import { checkRange } from '../ground/index.js';
import { straightLine, type Anchor, type LinePoint } from './anchor-line.js';
import { acrossWay, layThread, type At, type ThreadPoint, type Way } from './thread.js';
import type { CurvedSurface } from './surface.js';

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
  /** The same without the places where it would have to stretch: what gathers in fingers. */
  readonly toGoAboveMm: number;
  readonly toGoBelowMm: number;
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
  return fieldFromLine(surface, outline, straightLine(surface, outline, anchor, stepMm), { stepMm });
}

/** The same for any anchor line, straight or forced. */
export function fieldFromLine(surface: CurvedSurface, outline: Polygon, line: readonly LinePoint[], { stepMm }: FieldOptions): ShrinkField {
  const box = boundingBox(outline);
  const isInBox = ({ u, v }: At) => u >= box.minX && u <= box.maxX && v >= box.minY && v <= box.maxY;
  const mostMm = 20 * (box.maxX - box.minX + box.maxY - box.minY);
  const thread = (from: At, way: Way, widthSlope: number): Thread => {
    const points = layThread(surface, from, way, { stepMm, mostMm, isIn: isInBox, widthSlope, runsPast: true });
    let last = points.length - 1;
    while (last >= 0 && !isWithin(outline, points[last]!)) last--;
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
  const stations = line.map((p): Station => {
    const up = acrossWay(surface.at(p.u, p.v), p);
    // a line that turns upwards brings the threads above it together
    return {
      alongMm: p.alongMm,
      at: { u: p.u, v: p.v },
      up: thread(p, up, -p.turnPerMm),
      down: thread(p, { du: -up.du, dv: -up.dv }, p.turnPerMm),
    };
  });
  const loss = (t: Thread) => (t.edge ? 1 - t.edge.widthRatio : null);
  const toGo = (t: Thread) => (t.edge ? Math.max(0, 1 - t.edge.widthRatio) : null);
  return {
    stations,
    slackAboveMm: summed(stations, (s) => loss(s.up)),
    slackBelowMm: summed(stations, (s) => loss(s.down)),
    toGoAboveMm: summed(stations, (s) => toGo(s.up)),
    toGoBelowMm: summed(stations, (s) => toGo(s.down)),
  };
}

/**
 * Slack along one edge by three tapes, anchor at half height. @source leading order of the shrink field; common practice
 * @param horizontalBowMm at the middle of the width; vertical at the middle of the height
 */
export function quickSlackMm(widthMm: number, horizontalBowMm: number, verticalBowMm: number): number {
  return (8 * horizontalBowMm * verticalBowMm) / widthMm;
}
