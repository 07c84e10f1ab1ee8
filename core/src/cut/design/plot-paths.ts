import type { PlotSettings } from '@yellow-pane/contracts';
import { distance, ringsOf, vec, type Polygon, type Region, type Vec } from '../../geometry/index.js';

/** One path of the knife: closed ones come back to their start and a little farther. */
export interface PlotPath {
  readonly kind: 'cut' | 'weed' | 'register';
  readonly points: readonly Vec[];
}

/** A sheet for the plotter: mm, origin at its lower left corner, as seen from the **film side**, which lies up under the knife. */
export interface PlotSheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly paths: readonly PlotPath[];
}

/** Past its start a closed cut goes on by this, so that the corner parts. @source common practice of plotting */
const OVERCUT_MM = 0.5;
/** Waste is parted into strips of about this height. @source house rule: what a hand pulls without tearing */
const WEED_STRIP_MM = 250;
/** A weeding line keeps off the film that stays. */
const WEED_CLEAR_MM = 1;
/** From this many on the knife goes row by row. */
const MANY_PATHS = 60;
/** Legs of a corner mark. */
const MARK_MM = 10;

/** What decides a plotter sheet. */
export interface PlotRequest {
  /** Film that stays, in the frame of the sheet. */
  readonly keep: Region;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where waste lies, when it is not the whole sheet round the film that stays. */
  readonly wasteBox: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number } | null;
  readonly settings: Pick<PlotSettings, 'weeding' | 'registration'>;
}

/** Paths in the order of the knife: marks first, then cuts from one to the nearest next, then lines through the waste. */
export function plotSheet(request: PlotRequest): PlotSheet {
  const { widthMm, heightMm } = request;
  const edge = 0.01;
  const isOnEdge = (a: Vec, b: Vec): boolean =>
    (Math.abs(a.x - b.x) < edge && (Math.abs(a.x) < edge || Math.abs(a.x - widthMm) < edge)) ||
    (Math.abs(a.y - b.y) < edge && (Math.abs(a.y) < edge || Math.abs(a.y - heightMm) < edge));
  const cuts = ringsOf(request.keep).flatMap((ring) => withoutSheetEdges(ring, isOnEdge));
  const marks: PlotPath[] = request.settings.registration ? cornerMarks(widthMm, heightMm) : [];
  const weed: PlotPath[] = request.settings.weeding ? weedLines(request) : [];
  return { widthMm, heightMm, paths: [...marks, ...nearestFirst(cuts), ...weed] };
}

/** A ring as one closed path, or the open lines of it that do not lie on the edge of the sheet: that edge is cut already. */
function withoutSheetEdges(ring: Polygon, isOnEdge: (a: Vec, b: Vec) => boolean): PlotPath[] {
  const n = ring.length;
  const skip = ring.map((p, i) => isOnEdge(p, ring[(i + 1) % n]!));
  if (!skip.some(Boolean)) return [{ kind: 'cut', points: closed(ring) }];
  const out: PlotPath[] = [];
  const first = skip.indexOf(true) + 1;
  let line: Vec[] = [];
  for (let k = 0; k < n; k++) {
    const i = (first + k) % n;
    if (skip[i]) {
      if (line.length > 1) out.push({ kind: 'cut', points: line });
      line = [];
    } else {
      if (line.length === 0) line.push(ring[i]!);
      line.push(ring[(i + 1) % n]!);
    }
  }
  if (line.length > 1) out.push({ kind: 'cut', points: line });
  return out;
}

function closed(ring: Polygon): Vec[] {
  const out = [...ring, ring[0]!];
  const [a, b] = [ring[0]!, ring[1]!];
  const l = distance(a, b);
  const t = Math.min(1, OVERCUT_MM / l);
  return [...out, vec(a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t)];
}

/** From the origin always to the path that begins nearest. A grid of starts keeps thousands of dots quick. */
function nearestFirst(paths: readonly PlotPath[]): PlotPath[] {
  const left = new Set(paths.map((_, i) => i));
  const out: PlotPath[] = [];
  let at = vec(0, 0);
  const rows = [...left].sort((a, b) => paths[a]!.points[0]!.y - paths[b]!.points[0]!.y || paths[a]!.points[0]!.x - paths[b]!.points[0]!.x);
  if (paths.length > MANY_PATHS) {
    // many marks: row by row, there and back
    const byRow = new Map<number, number[]>();
    rows.forEach((i) => {
      const ys = paths[i]!.points.map((p) => p.y);
      const key = Math.round((Math.min(...ys) + Math.max(...ys)) / 2 / 2);
      byRow.set(key, [...(byRow.get(key) ?? []), i]);
    });
    // dots of one row begin at one height, but a clipped one may not
    for (const row of byRow.values()) row.sort((a, b) => paths[a]!.points[0]!.x - paths[b]!.points[0]!.x);
    return [...byRow]
      .sort(([a], [b]) => a - b)
      .map(([, row]) => row)
      .flatMap((row, k) => (k % 2 ? [...row].reverse() : row).map((i) => paths[i]!));
  }
  while (left.size) {
    let best = -1;
    let least = Infinity;
    for (const i of left) {
      const d = distance(at, paths[i]!.points[0]!);
      if (d < least) [least, best] = [d, i];
    }
    left.delete(best);
    out.push(paths[best]!);
    at = paths[best]!.points.at(-1)!;
  }
  return out;
}

const cornerMarks = (w: number, h: number): PlotPath[] =>
  (
    [
      [2, 2, 1, 1],
      [w - 2, 2, -1, 1],
      [2, h - 2, 1, -1],
    ] as const
  ).map(([x, y, dx, dy]) => ({ kind: 'register', points: [vec(x + dx * MARK_MM, y), vec(x, y), vec(x, y + dy * MARK_MM)] }));

/** Level lines through the waste, parted where film stays. */
function weedLines({ keep, widthMm, heightMm, wasteBox }: PlotRequest): PlotPath[] {
  const rings = ringsOf(keep);
  if (rings.length === 0) return [];
  const [low, high] = wasteBox ? [Math.max(0, wasteBox.minY), Math.min(heightMm, wasteBox.maxY)] : [0, heightMm];
  const [from, to] = wasteBox ? [Math.max(0, wasteBox.minX), Math.min(widthMm, wasteBox.maxX)] : [0, widthMm];
  const strips = Math.max(1, Math.round((high - low) / WEED_STRIP_MM));
  const out: PlotPath[] = [];
  for (let k = 1; k < strips; k++) {
    const wanted = low + ((high - low) * k) / strips;
    // of the lines nearby the one that meets least film
    const tried = Array.from({ length: 21 }, (_, i) => wanted + (i - 10) * 4).filter((y) => y > low + 2 && y < high - 2);
    const best = tried.map((y) => ({ y, film: filmOn(rings, y, from, to) })).sort((p, q) => length(p.film) - length(q.film) || Math.abs(p.y - wanted) - Math.abs(q.y - wanted))[0]; // prettier-ignore
    if (!best) continue;
    let x = from;
    for (const [a, z] of [...best.film, [to, to] as const]) {
      const end = a === to ? to : a - WEED_CLEAR_MM;
      if (end - x > 5) out.push({ kind: 'weed', points: [vec(x, best.y), vec(end, best.y)] });
      x = Math.max(x, z + WEED_CLEAR_MM);
    }
  }
  return out;
}

/** Stretches of a level line that lie in film, by the even-odd rule. */
function filmOn(rings: readonly Polygon[], y: number, from: number, to: number): (readonly [number, number])[] {
  const xs: number[] = [];
  for (const ring of rings)
    ring.forEach((p, i) => {
      const q = ring[(i + 1) % ring.length]!;
      if (p.y > y !== q.y > y) xs.push(p.x + ((q.x - p.x) * (y - p.y)) / (q.y - p.y));
    });
  xs.sort((a, b) => a - b);
  const out: [number, number][] = [];
  for (let i = 0; i + 1 < xs.length; i += 2) if (xs[i + 1]! > from && xs[i]! < to) out.push([Math.max(from, xs[i]!), Math.min(to, xs[i + 1]!)]);
  return out;
}
const length = (parts: readonly (readonly [number, number])[]): number => parts.reduce((s, [a, b]) => s + b - a, 0);

/** Millimetres the knife goes down, and in the air. */
export function plotLengths(sheet: PlotSheet): { cutMm: number; travelMm: number } {
  let [cutMm, travelMm] = [0, 0];
  let at = vec(0, 0);
  for (const { points } of sheet.paths) {
    travelMm += distance(at, points[0]!);
    for (let i = 1; i < points.length; i++) cutMm += distance(points[i - 1]!, points[i]!);
    at = points.at(-1)!;
  }
  return { cutMm, travelMm };
}
