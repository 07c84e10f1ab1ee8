import { anticlockwise, CHORD_ERROR_MM, crossingSides, distance, flatten, pathArea, vec, type ArcPath, type ArcPoint, type Vec } from '../geometry/index.js';
import { boxOf } from './shape-models.js';

/** What a drawing file holds, in the units of the drawing. */
export type DrawnEntity =
  | { readonly kind: 'line'; readonly a: Vec; readonly b: Vec }
  | { readonly kind: 'polyline'; readonly points: ArcPath; readonly isClosed: boolean }
  | { readonly kind: 'arc'; readonly centre: Vec; readonly radius: number; readonly startRad: number; readonly endRad: number }
  | { readonly kind: 'circle'; readonly centre: Vec; readonly radius: number }
  | { readonly kind: 'spline'; readonly control: readonly Vec[]; readonly degree: number; readonly knots: readonly number[]; readonly isClosed: boolean };

export type DrawnOutline = { readonly ok: true; readonly path: ArcPath; readonly note: string | null } | { readonly ok: false; readonly message: string };

interface Segment {
  readonly a: Vec;
  readonly b: Vec;
  readonly bulge: number;
}
/** Ends this near to each other are one point, mm. @source common practice of drawing exchange: a hundredth of what a knife can follow */
const JOIN_MM = 0.05;
const mostPoints = 4000;
/** A drawing of more is a plan of a house. */
const MOST_SEGMENTS = 50_000;
/** Farther from its origin nothing is drawn, in whatever unit. */
const FARTHEST = 1e9;
const MOST_DEGREE = 10;

/** What in a drawing cannot be followed at all; null: nothing. */
function faultIn(entities: readonly DrawnEntity[]): string | null {
  if (entities.length > MOST_SEGMENTS) return `The drawing has ${entities.length} lines; ${MOST_SEGMENTS} are the most. Keep the outline of the pane alone.`;
  const isPoint = (p: Vec) => Math.abs(p.x) <= FARTHEST && Math.abs(p.y) <= FARTHEST;
  for (const [i, e] of entities.entries()) {
    const points = e.kind === 'line' ? [e.a, e.b] : e.kind === 'polyline' ? e.points : e.kind === 'spline' ? e.control : [e.centre];
    if (!points.every(isPoint)) return `Line ${i + 1} of the drawing has a point that is nowhere.`;
    if ((e.kind === 'arc' || e.kind === 'circle') && !(e.radius > 0 && e.radius <= FARTHEST)) return `An arc or circle of the drawing has no radius.`;
    if (e.kind !== 'spline') continue;
    const { degree, control, knots } = e;
    const isKnown = Number.isInteger(degree) && degree >= 1 && degree <= MOST_DEGREE && control.length > degree && knots.length === control.length + degree + 1;
    if (!isKnown || knots.some((k, j) => !Number.isFinite(k) || (j > 0 && k < knots[j - 1]!)))
      return 'A spline of the drawing is not whole: its knots do not go with its points. Save the drawing again, or draw that curve as arcs.';
  }
  return null;
}

/** A point of a B-spline. @source de Boor's algorithm (A Practical Guide to Splines, 1978; from memory) */
export function splinePoint(control: readonly Vec[], degree: number, knots: readonly number[], t: number): Vec {
  let k = degree;
  while (k < control.length - 1 && t >= knots[k + 1]!) k++;
  const d = Array.from({ length: degree + 1 }, (_, j) => control[j + k - degree]!);
  for (let r = 1; r <= degree; r++)
    for (let j = degree; j >= r; j--) {
      const [low, high] = [knots[j + k - degree]!, knots[j + 1 + k - r]!];
      const s = high > low ? (t - low) / (high - low) : 0;
      d[j] = vec(d[j - 1]!.x * (1 - s) + d[j]!.x * s, d[j - 1]!.y * (1 - s) + d[j]!.y * s);
    }
  return d[degree]!;
}

/** A spline as chords that leave it by at most `error`, halving each span until it does. */
function flattenSpline(s: Extract<DrawnEntity, { kind: 'spline' }>, error: number): Vec[] {
  const at = (t: number) => splinePoint(s.control, s.degree, s.knots, t);
  const spans = [...new Set(s.knots.slice(s.degree, s.control.length + 1))];
  const out: Vec[] = [at(spans[0]!)];
  const walk = (t0: number, p0: Vec, t1: number, p1: Vec, depth: number): void => {
    // three points inside, so that a curve that swings both ways is not taken for straight
    const inner = [0.25, 0.5, 0.75].map((f) => at(t0 + (t1 - t0) * f));
    const l = distance(p0, p1) || 1;
    const off = Math.max(...inner.map((q) => Math.abs((p1.x - p0.x) * (q.y - p0.y) - (p1.y - p0.y) * (q.x - p0.x)) / l));
    if ((off <= error && depth > 1) || depth > 14) return void out.push(p1);
    const tm = (t0 + t1) / 2;
    walk(t0, p0, tm, inner[1]!, depth + 1);
    walk(tm, inner[1]!, t1, p1, depth + 1);
  };
  for (let i = 0; i + 1 < spans.length; i++) walk(spans[i]!, at(spans[i]!), spans[i + 1]!, at(spans[i + 1]!), 0);
  return out;
}

/** The entities as straight and curved pieces, in mm. */
function segmentsOf(entities: readonly DrawnEntity[], mmPerUnit: number): Segment[] {
  const mm = (p: Vec): Vec => vec(p.x * mmPerUnit, p.y * mmPerUnit);
  const chain = (points: ArcPath, isClosed: boolean): Segment[] =>
    points.flatMap((p, i) => (i + 1 < points.length || isClosed ? [{ a: mm(p), b: mm(points[(i + 1) % points.length]!), bulge: p.bulge }] : []));
  return entities
    .flatMap((e): Segment[] => {
      switch (e.kind) {
        case 'line':
          return [{ a: mm(e.a), b: mm(e.b), bulge: 0 }];
        case 'polyline':
          return chain(e.points, e.isClosed);
        case 'circle':
          return chain([{ x: e.centre.x + e.radius, y: e.centre.y, bulge: 1 }, { x: e.centre.x - e.radius, y: e.centre.y, bulge: 1 }], true); // prettier-ignore
        case 'arc': {
          const angle = ((((e.endRad - e.startRad) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)) || 2 * Math.PI; // prettier-ignore
          const on = (t: number) => vec(e.centre.x + e.radius * Math.cos(t), e.centre.y + e.radius * Math.sin(t));
          // in two halves, so that no bulge is out of bounds
          const middle = e.startRad + angle / 2;
          const bulge = Math.tan(angle / 8);
          return chain([{ ...on(e.startRad), bulge }, { ...on(middle), bulge }, { ...on(e.startRad + angle), bulge: 0 }], false); // prettier-ignore
        }
        case 'spline':
          return chain(flattenSpline(e, CHORD_ERROR_MM / mmPerUnit).map((p) => ({ ...p, bulge: 0 })), e.isClosed); // prettier-ignore
      }
    })
    .filter((s) => distance(s.a, s.b) > JOIN_MM / 10 || s.bulge !== 0);
}

const near = (a: Vec, b: Vec): boolean => distance(a, b) <= JOIN_MM;
const said = (p: Vec): string => `${p.x.toFixed(1)} / ${p.y.toFixed(1)}`;

/** Ends of pieces by the square of the plane that they lie in, so that a neighbour is found without looking at all of them. */
class Ends {
  private readonly cells = new Map<string, number[]>();
  constructor(private readonly segments: readonly Segment[]) {
    segments.forEach((s, i) => [s.a, s.b].forEach((p) => this.cell(p).push(i)));
  }
  private static at = (p: Vec): [number, number] => [Math.floor(p.x / (2 * JOIN_MM)), Math.floor(p.y / (2 * JOIN_MM))];
  private cell(p: Vec): number[] {
    const key = Ends.at(p).join(' ');
    const list = this.cells.get(key) ?? [];
    this.cells.set(key, list);
    return list;
  }
  /** The first piece that is left and begins or ends here; −1: none. */
  find(p: Vec, isLeft: (i: number) => boolean): number {
    const [x, y] = Ends.at(p);
    let first = -1;
    for (let dx = -1; dx <= 1; dx++)
      for (let dy = -1; dy <= 1; dy++)
        for (const i of this.cells.get(`${x + dx} ${y + dy}`) ?? []) {
          const s = this.segments[i]!;
          if (isLeft(i) && (near(s.a, p) || near(s.b, p)) && (first < 0 || i < first)) first = i;
        }
    return first;
  }
}

/** Joins pieces end to end. Closed rings, and chains that do not close. */
function joinUp(segments: readonly Segment[]): { rings: ArcPath[]; open: { from: Vec; to: Vec }[] } {
  const ends = new Ends(segments);
  const isTaken = new Uint8Array(segments.length);
  const isLeft = (i: number) => isTaken[i] === 0;
  const take = (i: number): Segment => {
    isTaken[i] = 1;
    return segments[i]!;
  };
  const rings: ArcPath[] = [];
  const open: { from: Vec; to: Vec }[] = [];
  for (let first = 0; first < segments.length; first++) {
    if (!isLeft(first)) continue;
    const chain: Segment[] = [take(first)];
    const before: Segment[] = [];
    for (;;) {
      const end = chain.at(-1)!.b;
      const start = (before.at(-1) ?? chain[0]!).a;
      if (near(end, start)) {
        rings.push([...before.reverse(), ...chain].map((s): ArcPoint => ({ ...s.a, bulge: s.bulge })));
        break;
      }
      const i = ends.find(end, isLeft);
      if (i >= 0) {
        const s = take(i);
        chain.push(near(s.a, end) ? s : { a: s.b, b: s.a, bulge: -s.bulge });
        continue;
      }
      // the chain may go on at its other end
      const j = ends.find(start, isLeft);
      if (j < 0) {
        open.push({ from: start, to: end });
        break;
      }
      const s = take(j);
      before.push(near(s.b, start) ? s : { a: s.b, b: s.a, bulge: -s.bulge });
    }
  }
  return { rings, open };
}

/**
 * The outline of a pane from a drawing: its largest closed ring, anticlockwise, lower left corner of its box at the origin.
 * @param mmPerUnit millimetres in one unit of the drawing
 * @returns a sentence that says where, when nothing closes or the outline crosses itself
 */
export function outlineFromDrawing(entities: readonly DrawnEntity[], mmPerUnit: number): DrawnOutline {
  const fault = faultIn(entities);
  if (fault) return { ok: false, message: fault };
  const segments = segmentsOf(entities, mmPerUnit);
  if (segments.length > MOST_SEGMENTS)
    return { ok: false, message: `The drawing has ${segments.length} lines; ${MOST_SEGMENTS} are the most. Keep the outline of the pane alone.` };
  const { rings, open } = joinUp(segments);
  const sized = rings.filter((r) => r.length >= 2).map(anticlockwise).sort((a, b) => pathArea(b) - pathArea(a)); // prettier-ignore
  const outer = sized[0];
  if (!outer) {
    const gap = open.sort((a, b) => distance(a.from, a.to) - distance(b.from, b.to))[0];
    return {
      ok: false,
      message: gap
        ? `The outline is open: it starts at ${said(gap.from)} and ends at ${said(gap.to)}, ${distance(gap.from, gap.to).toFixed(2)} mm apart. Close it in the drawing.`
        : 'There is no line, polyline, arc, circle or spline in this drawing.',
    };
  }
  if (outer.length > mostPoints)
    return { ok: false, message: `The outline has ${outer.length} points; ${mostPoints} are the most. Draw its curves as arcs or splines.` };
  const size = boxOf(outer);
  const [w, h] = [size.maxX - size.minX, size.maxY - size.minY];
  if (Math.max(w, h) > 10_000 || Math.min(w, h) < 20)
    return { ok: false, message: `The outline would be ${w.toFixed(0)} × ${h.toFixed(0)} mm. Are the units of the drawing right?` };
  const flat = flatten(outer);
  const crossed = crossingSides(flat);
  if (crossed)
    return { ok: false, message: `The outline crosses itself near ${said(flat[crossed[0]]!)} and ${said(flat[crossed[1]]!)}. Mend it in the drawing.` };
  const rest = [
    sized.length > 1
      ? `${sized.length - 1} smaller closed ${sized.length === 2 ? 'outline was' : 'outlines were'} left out: enter cut-outs by their measures.`
      : '',
    open.length ? `${open.length} open ${open.length === 1 ? 'line was' : 'lines were'} left out.` : '',
  ].filter(Boolean);
  return { ok: true, path: outer.map((p) => ({ x: p.x - size.minX, y: p.y - size.minY, bulge: p.bulge })), note: rest.length ? rest.join(' ') : null };
}
