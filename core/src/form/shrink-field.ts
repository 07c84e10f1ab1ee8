import { boundingBox, type Polygon } from '../geometry/index.js';
import { checkRange } from '../ground/index.js';
import { straightLine, type Anchor, type LinePoint } from './anchor-line.js';
import { acrossWay, lossFrac, newRun, RUN, threadRunner, unitWay, type At, type Run, type ThreadPoint } from './thread.js';
import type { CurvedSurface } from './surface.js';
import { isWithin, packed } from './within.js';

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

/** Share of the way from a point inside to one outside at which a polygon is left for the first time. */
function leaves(polygon: Float64Array, u: number, v: number, toU: number, toV: number): number {
  const du = toU - u;
  const dv = toV - v;
  let first = 1;
  for (let i = 0, j = polygon.length - 2; i < polygon.length; j = i, i += 2) {
    const ax = polygon[i]!;
    const ay = polygon[i + 1]!;
    const ex = polygon[j]! - ax;
    const ey = polygon[j + 1]! - ay;
    const det = du * ey - dv * ex;
    if (det === 0) continue;
    const t = ((ax - u) * ey - (ay - v) * ex) / det;
    const along = ((ax - u) * dv - (ay - v) * du) / det;
    if (t >= 0 && t < first && along >= -1e-9 && along <= 1 + 1e-9) first = t;
  }
  return first;
}

/** The last point of a run that lies on the pane, and the share of the way to the next at which its edge is met; null where it never comes onto it. */
function edgeOf({ points, count }: Run, polygon: Float64Array): { last: number; share: number } | null {
  let last = count - 1;
  while (last >= 0 && !isWithin(polygon, points[RUN * last + 1]!, points[RUN * last + 2]!)) last--;
  if (last < 0) return null;
  if (last === count - 1) return { last, share: 0 };
  const o = RUN * last;
  return { last, share: leaves(polygon, points[o + 1]!, points[o + 2]!, points[o + RUN + 1]!, points[o + RUN + 2]!) };
}

/** A share of width summed along an edge, mm: trapezoids over stations that both have one (NaN: no thread comes onto the pane there). */
export function summedAlong(count: number, alongMm: (i: number) => number, frac: (i: number) => number): number {
  let sum = 0;
  for (let i = 1; i < count; i++) {
    const [a, b] = [frac(i - 1), frac(i)];
    if (a === a && b === b) sum += ((a + b) / 2) * (alongMm(i) - alongMm(i - 1));
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

/** A point of a run, or one between it and the next: between the two the share to lose is as good as straight. */
function pointOf({ points }: Run, i: number, share = 0): ThreadPoint {
  const at = (k: number): number => points[RUN * i + k]! + (share === 0 ? 0 : share * (points[RUN * (i + 1) + k]! - points[RUN * i + k]!));
  return { sMm: at(0), u: at(1), v: at(2), du: at(3), dv: at(4), widthRatio: at(5) };
}

/** Where a run that begins off the pane first comes onto it, as a point of the thread; null where it never does. The way in is the way out of the step walked back. */
function entryOf(run: Run, polygon: Float64Array): ThreadPoint | null {
  const { points, count } = run;
  for (let i = 1; i < count; i++) {
    const o = RUN * i;
    if (!isWithin(polygon, points[o + 1]!, points[o + 2]!)) continue;
    return pointOf(run, i - 1, 1 - leaves(polygon, points[o + 1]!, points[o + 2]!, points[o - RUN + 1]!, points[o - RUN + 2]!));
  }
  return null;
}

/**
 * The field of an arch: film lies from the upper edge down. Threads that begin above the pane hang free as far as its edge: nothing brings them together there.
 * @param line as `archLine` has it
 * @returns the field, and the line where it lies on the pane: along its upper edge where that falls away from it
 */
export function fieldOfArch(
  surface: CurvedSurface,
  outline: Polygon,
  line: readonly LinePoint[],
  { stepMm }: FieldOptions,
): { field: ShrinkField; line: LinePoint[] } {
  const polygon = packed(outline);
  const box = boundingBox(outline);
  const top = Math.max(box.maxY, ...line.map((p) => p.v)) + stepMm;
  const follow = threadRunner(surface, { ...box, maxY: top }, stepMm);
  const run = newRun();
  const onPane: LinePoint[] = [];
  const stations = line.map((p): Station => {
    const across = acrossWay(surface.at(p.u, p.v), p);
    const down = { du: -across.du, dv: -across.dv };
    if (isWithin(polygon, p.u, p.v)) {
      onPane.push(p);
      follow(run, p.u, p.v, across, 0);
      const up = threadOf(run, polygon);
      follow(run, p.u, p.v, down, 0);
      return { alongMm: p.alongMm, at: { u: p.u, v: p.v }, up, down: threadOf(run, polygon) };
    }
    const start: ThreadPoint = { sMm: 0, u: p.u, v: p.v, ...down, widthRatio: 1 };
    follow(run, p.u, p.v, down, 0);
    const entry = entryOf(run, polygon);
    if (!entry) return { alongMm: p.alongMm, at: { u: p.u, v: p.v }, up: { points: [start], edge: null }, down: { points: [start], edge: null } };
    onPane.push({ ...p, u: entry.u, v: entry.v });
    // only from here on does the glass bring threads together
    follow(run, entry.u, entry.v, unitWay(surface.at(entry.u, entry.v), entry), 0);
    const later = (q: ThreadPoint): ThreadPoint => ({ ...q, sMm: q.sMm + entry.sMm });
    const { points, edge } = threadOf(run, polygon);
    const up = { points: [{ ...entry, sMm: -entry.sMm, widthRatio: 1 }], edge: null };
    return { alongMm: p.alongMm, at: { u: entry.u, v: entry.v }, up, down: { points: points.map(later), edge: edge && later(edge) } };
  });
  return { field: fieldOf(stations), line: onPane };
}

/** A thread as it was run along, with where it crosses the edge. */
function threadOf(run: Run, polygon: Float64Array): Thread {
  const edge = edgeOf(run, polygon);
  return { points: Array.from({ length: run.count }, (_, i) => pointOf(run, i)), edge: edge && pointOf(run, edge.last, edge.share) };
}

/** The same for any anchor line, straight or forced. */
export function fieldFromLine(surface: CurvedSurface, outline: Polygon, line: readonly LinePoint[], { stepMm }: FieldOptions): ShrinkField {
  const polygon = packed(outline);
  const follow = threadRunner(surface, boundingBox(outline), stepMm);
  const run = newRun();
  const thread = (): Thread => threadOf(run, polygon);
  const stations = line.map((p): Station => {
    const across = acrossWay(surface.at(p.u, p.v), p);
    // a line that turns upwards brings the threads above it together
    follow(run, p.u, p.v, across, -p.turnPerMm);
    const up = thread();
    follow(run, p.u, p.v, { du: -across.du, dv: -across.dv }, p.turnPerMm);
    return { alongMm: p.alongMm, at: { u: p.u, v: p.v }, up, down: thread() };
  });
  return fieldOf(stations);
}

function fieldOf(stations: readonly Station[]): ShrinkField {
  const loss = (t: Thread) => (t.edge ? lossFrac(t.edge) : NaN);
  const toGo = (t: Thread) => Math.max(0, loss(t));
  const along = (of: (s: Station) => number) => summedAlong(stations.length, (i) => stations[i]!.alongMm, (i) => of(stations[i]!)); // prettier-ignore
  return {
    stations,
    slackAboveMm: along((s) => loss(s.up)),
    slackBelowMm: along((s) => loss(s.down)),
    toGoAboveMm: along((s) => toGo(s.up)),
    toGoBelowMm: along((s) => toGo(s.down)),
  };
}

/** What has to go along the edges, station by station; NaN where no thread comes onto the pane. */
export interface EdgeLosses {
  readonly alongMm: Float64Array;
  readonly above: Float64Array;
  readonly below: Float64Array;
}

/** The edges of a field alone: for whoever tries many lines. */
export function lossesFrom(surface: CurvedSurface, outline: Polygon, stepMm: number): (line: readonly LinePoint[]) => EdgeLosses {
  const polygon = packed(outline);
  const follow = threadRunner(surface, boundingBox(outline), stepMm);
  const run = newRun();
  const loss = (): number => {
    const edge = edgeOf(run, polygon);
    if (!edge) return NaN;
    const o = RUN * edge.last + 5;
    const here = run.points[o]!;
    return lossFrac({ widthRatio: edge.share === 0 ? here : here + edge.share * (run.points[o + RUN]! - here) });
  };
  return (line) => {
    const [alongMm, above, below] = [new Float64Array(line.length), new Float64Array(line.length), new Float64Array(line.length)];
    line.forEach((p, i) => {
      const across = acrossWay(surface.at(p.u, p.v), p);
      alongMm[i] = p.alongMm;
      follow(run, p.u, p.v, across, -p.turnPerMm);
      above[i] = loss();
      follow(run, p.u, p.v, { du: -across.du, dv: -across.dv }, p.turnPerMm);
      below[i] = loss();
    });
    return { alongMm, above, below };
  };
}

/**
 * Slack along one edge by three tapes, anchor at half height. @source leading order of the shrink field; common practice
 * @param horizontalBowMm at the middle of the width; vertical at the middle of the height
 */
export function quickSlackMm(widthMm: number, horizontalBowMm: number, verticalBowMm: number): number {
  return (8 * horizontalBowMm * verticalBowMm) / widthMm;
}
