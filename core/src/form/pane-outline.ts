import type { Bow, BowPlace, CurvedPane } from '@yellow-pane/contracts';
import { boundingBox, cross, distance, dot, flatten, minus, type ArcPoint, type Polygon, type Vec } from '../geometry/index.js';
import type { Survey } from '../measure/index.js';

/** The outline of a curved pane in the plane of its corners, anticlockwise from the lower left, mm; curves as short chords. */
export type PaneOutline = Polygon;

/** Points along a bowed edge or a rounded corner, so that no chord is off by more than this. */
const CHORD_MM = 0.1;

/** A bulge that stands out by `riseMm` in the middle of a side. */
const bulgeOf = (a: Vec, b: Vec, riseMm: number): number => (2 * riseMm) / Math.max(1, Math.hypot(b.x - a.x, b.y - a.y));

/** Corners rounded off by arcs; a radius that is too big for its sides is made smaller. @param corners their places in the polygon, in order */
function rounded(polygon: Polygon, corners: readonly number[], radii: readonly number[]): Polygon {
  if (radii.every((r) => r <= 0)) return polygon;
  const n = polygon.length;
  const sideLength = corners.map((from, k) => {
    let length = 0;
    for (let i = from; i !== corners[(k + 1) % corners.length]!; i = (i + 1) % n) length += distance(polygon[i]!, polygon[(i + 1) % n]!);
    return length;
  });
  const cut = corners.map((at, k) => {
    const [before, here, after] = [polygon[(at + n - 1) % n]!, polygon[at]!, polygon[(at + 1) % n]!];
    const turn = Math.atan2(cross(minus(here, before), minus(after, here)), dot(minus(here, before), minus(after, here)));
    const room = 0.45 * Math.min(sideLength[k]!, sideLength[(k + corners.length - 1) % corners.length]!);
    return { turn, backMm: turn <= 0.05 ? 0 : Math.min(room, (radii[k] ?? 0) * Math.tan(turn / 2)) };
  });
  const out: Vec[] = [];
  corners.forEach((at, k) => {
    const next = corners[(k + 1) % corners.length]!;
    const side: Vec[] = [polygon[at]!];
    for (let i = at; i !== next; i = (i + 1) % n) side.push(polygon[(i + 1) % n]!);
    const run = between(side, cut[k]!.backMm, sideLength[k]! - cut[(k + 1) % corners.length]!.backMm);
    const { turn, backMm } = cut[k]!;
    if (backMm > 0 && out.length > 0)
      out.push(
        ...withoutLast(
          flatten(
            [
              { ...out.pop()!, bulge: Math.tan(turn / 4) },
              { ...run[0]!, bulge: 0 },
            ],
            CHORD_MM,
          ),
        ),
      );
    out.push(...(cut[(k + 1) % corners.length]!.backMm > 0 ? run : run.slice(0, -1)));
  });
  const first = cut[0]!;
  if (first.backMm > 0)
    out.push(
      ...withoutLast(
        flatten(
          [
            { ...out.pop()!, bulge: Math.tan(first.turn / 4) },
            { ...out[0]!, bulge: 0 },
          ],
          CHORD_MM,
        ),
      ),
    );
  return out;
}

/** The part of a broken line from one length along it to another. */
function between(line: Polygon, fromMm: number, toMm: number): Vec[] {
  const out: Vec[] = [];
  let done = 0;
  const at = (a: Vec, b: Vec, t: number): Vec => ({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });
  for (let i = 1; i < line.length; i++) {
    const [a, b] = [line[i - 1]!, line[i]!];
    const length = distance(a, b);
    if (length === 0) continue;
    if (out.length === 0 && done + length >= fromMm - 1e-9) out.push(at(a, b, Math.max(0, (fromMm - done) / length)));
    if (out.length > 0 && done + length >= toMm - 1e-9) {
      out.push(at(a, b, Math.min(1, (toMm - done) / length)));
      return out;
    }
    if (out.length > 0) out.push(b);
    done += length;
  }
  return out;
}

/**
 * Outline of a curved pane from its tapes: straight between the corners, its edges crowned by their own bows, its corners rounded. From a point cloud:
 * as its points lie. Null without a size.
 * @param survey of tapes that were pulled tight
 */
export function outlineOfCurved(survey: Survey, curved: Pick<CurvedPane, 'cloud' | 'cornerRadiiMm'>): PaneOutline | null {
  if (curved.cloud) return curved.cloud.outline;
  if (!survey.outline || survey.status === 'impossible') return null;
  if (survey.shape || survey.outline.length !== 4) return survey.outline;
  const rise = [survey.bowsMm.bowBottom, survey.bowsMm.bowRight, survey.bowsMm.bowTop, survey.bowsMm.bowLeft];
  const points: Vec[] = [];
  const corners: number[] = [];
  survey.outline.forEach((a, i) => {
    const b = survey.outline![(i + 1) % 4]!;
    corners.push(points.length);
    const side: ArcPoint[] = [
      { ...a, bulge: bulgeOf(a, b, rise[i]!) },
      { ...b, bulge: 0 },
    ];
    points.push(...(rise[i] === 0 ? [a] : withoutLast(flatten([...side], CHORD_MM))));
  });
  return rounded(points, corners, curved.cornerRadiiMm);
}
const withoutLast = (polygon: Polygon): Vec[] => polygon.slice(0, -1);

/** A straightedge on the pane: its two ends and the middle between them, in the plane of the corners. */
export interface Straightedge {
  readonly from: Vec;
  readonly middle: Vec;
  readonly to: Vec;
}

/** Where a straight line crosses an outline first and last, as shares of the way from a to b. */
function crossings(outline: Polygon, a: Vec, b: Vec): readonly [number, number] | null {
  let [first, last] = [Infinity, -Infinity];
  outline.forEach((p, i) => {
    const q = outline[(i + 1) % outline.length]!;
    const [dx, dy, ex, ey] = [b.x - a.x, b.y - a.y, q.x - p.x, q.y - p.y];
    const det = dx * ey - dy * ex;
    if (Math.abs(det) < 1e-12) return;
    const t = ((p.x - a.x) * ey - (p.y - a.y) * ex) / det;
    const s = ((p.x - a.x) * dy - (p.y - a.y) * dx) / det;
    if (s >= -1e-9 && s <= 1 + 1e-9) [first, last] = [Math.min(first, t), Math.max(last, t)];
  });
  return last > first ? [first, last] : null;
}

/** Corners of an outline as a person sees them: the points farthest out each way, lower left, lower right, upper right, upper left. */
function cornersOfOutline(outline: Polygon): readonly [Vec, Vec, Vec, Vec] {
  const best = (sx: number, sy: number): Vec => outline.reduce((a, p) => (sx * p.x + sy * p.y > sx * a.x + sy * a.y ? p : a));
  return [best(-1, -1), best(1, -1), best(1, 1), best(-1, 1)];
}

/** Where a straightedge touches: null where it would lie off the glass. */
export function straightedgeOf(outline: Polygon, place: BowPlace): Straightedge | null {
  const box = boundingBox(outline);
  const c = cornersOfOutline(outline);
  const [a, b]: [Vec, Vec] =
    place.way === 'across'
      ? [{ x: box.minX - 1, y: place.atMm }, { x: box.maxX + 1, y: place.atMm }] // prettier-ignore
      : place.way === 'upright'
        ? [{ x: place.atMm, y: box.minY - 1 }, { x: place.atMm, y: box.maxY + 1 }] // prettier-ignore
        : place.way === 'down'
          ? [c[3], c[1]]
          : [c[0], c[2]];
  const cut = crossings(outline, a, b);
  if (!cut) return null;
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  let [from, to] = [cut[0] * length, cut[1] * length];
  if (place.span) {
    const start = from + place.span.fromMm;
    if (start < from - 1e-6 || start + place.span.lengthMm > to + 1) return null;
    [from, to] = [start, Math.min(to, start + place.span.lengthMm)];
  }
  if (to - from < 20) return null;
  const at = (mm: number): Vec => ({ x: a.x + (mm / length) * (b.x - a.x), y: a.y + (mm / length) * (b.y - a.y) });
  return { from: at(from), middle: at((from + to) / 2), to: at(to) };
}

/** Length of a straightedge, mm. */
export const lengthOf = (s: Straightedge): number => Math.hypot(s.to.x - s.from.x, s.to.y - s.from.y);

/** Straightedges laid first, in the order a person walks them: three level, three plumb, both diagonals. */
export function usualBows(outline: Polygon): BowPlace[] {
  const box = boundingBox(outline);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const round = (mm: number) => Math.round(mm / 5) * 5;
  const place = (way: BowPlace['way'], atMm: number): BowPlace => ({ way, atMm, span: null });
  return [
    ...[0.85, 0.5, 0.15].map((k) => place('across', round(box.minY + k * h))),
    ...[0.12, 0.5, 0.88].map((k) => place('upright', round(box.minX + k * w))),
    place('down', 0),
    place('up', 0),
  ];
}

/** Short straightedges: a ruler's length, and so much of the height; on lower panes none fits. */
const SHORT = { mostMm: 300, share: 0.3, turnsInShare: 0.2, leastMm: 80 };

/**
 * Short straightedges stood on the lower edge and hung from the upper one, left and right of the middle: long ones are blind to an edge that turns in. At an edge that somebody
 * saw turn in, a shorter one in the middle besides.
 * @source common practice: a straightedge stood on the edge shows where glass turns in
 */
export function edgeBows(outline: Polygon, turnsIn: readonly ('lower' | 'upper')[] = []): BowPlace[] {
  const { minX, maxX } = boundingBox(outline);
  const stood = (k: number, side: 'lower' | 'upper', share: number): BowPlace[] => {
    const atMm = Math.round((minX + k * (maxX - minX)) / 5) * 5;
    const whole = straightedgeOf(outline, { way: 'upright', atMm, span: null });
    if (!whole) return [];
    const lengthMm = Math.round(Math.min(SHORT.mostMm, share * lengthOf(whole)) / 10) * 10;
    const fromMm = side === 'lower' ? 0 : Math.floor(lengthOf(whole) - lengthMm);
    return lengthMm < SHORT.leastMm ? [] : [{ way: 'upright', atMm, span: { fromMm, lengthMm } }];
  };
  return (['lower', 'upper'] as const).flatMap((side) => [
    ...stood(0.3, side, SHORT.share),
    ...(turnsIn.includes(side) ? stood(0.5, side, SHORT.turnsInShare) : []),
    ...stood(0.7, side, SHORT.share),
  ]);
}

/** So near to an edge a short straightedge has to begin or end to have seen it. @source house rule: a hand's breadth less the rule's own end */
const AT_EDGE_MM = 60;

/**
 * Whether short straightedges were laid upright at the lower and at the upper edge. Long ones are blind to an edge that turns in sharply, and it is such edges that draw
 * the balanced line towards them.
 */
export function edgesSeen(outline: Polygon, bows: readonly BowPlace[]): boolean {
  const short = bows.flatMap((b) => {
    const whole = b.way === 'upright' && b.span ? straightedgeOf(outline, { ...b, span: null }) : null;
    return whole ? [{ fromMm: b.span!.fromMm, toMm: b.span!.fromMm + b.span!.lengthMm, wholeMm: lengthOf(whole) }] : [];
  });
  return short.some((s) => s.fromMm <= AT_EDGE_MM && s.toMm < s.wholeMm / 2) && short.some((s) => s.toMm >= s.wholeMm - AT_EDGE_MM && s.fromMm > s.wholeMm / 2);
}

/**
 * The window across: left and right change places, and its own lower left corner is the origin again.
 * @param outline of the pane that was measured @param lowerRightMm where its lower right corner lies from the lower left one
 */
export function mirroredCurved(curved: CurvedPane, outline: Polygon, lowerRightMm: number): CurvedPane {
  const over = (x: number) => lowerRightMm - x;
  const [a, b, c, d] = curved.cornerRadiiMm;
  const bow = (x: Bow): Bow => {
    const whole = x.span && x.way !== 'upright' ? straightedgeOf(outline, { ...x, span: null }) : null;
    return {
      ...x,
      way: x.way === 'down' ? 'up' : x.way === 'up' ? 'down' : x.way,
      atMm: x.way === 'upright' ? over(x.atMm) : x.atMm,
      span: x.span && whole ? { ...x.span, fromMm: Math.max(0, lengthOf(whole) - x.span.fromMm - x.span.lengthMm) } : x.span,
    };
  };
  const { defroster: lines, cloud, anchor } = curved;
  return {
    ...curved,
    isMirror: false,
    cornerRadiiMm: [b, a, d, c],
    bows: curved.bows.map(bow),
    zones: curved.zones.map((z) => ({ ...z, leftMm: over(z.leftMm) - z.widthMm })),
    defroster: lines?.way === 'upright' ? { ...lines, firstMm: Math.max(0, over(lines.firstMm) - (lines.count - 1) * lines.spacingMm) } : lines,
    cloud: cloud && {
      ...cloud,
      cells: cloud.cells.map(([x, y, z, s]) => [over(x), y, z, s]),
      outline: [...cloud.outline].reverse().map((p) => ({ x: over(p.x), y: p.y })),
    },
    anchor: anchor.kind !== 'through' && anchor.kind !== 'forced' ? anchor : { ...anchor, leftMm: anchor.rightMm, rightMm: anchor.leftMm },
  };
}
