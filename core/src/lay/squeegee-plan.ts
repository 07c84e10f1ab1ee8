import {
  boundingBox,
  cornerAngleDeg,
  distance,
  minus,
  offsetOutline,
  partsArea,
  partsWithout,
  regionOf,
  ringsOf,
  signedArea,
  trapezoidsOf,
  vec,
  without,
  type ConvexParts,
  type Polygon,
  type Vec,
} from '../geometry/index.js';
import { EDGE_STOP_MM } from '../prepare/index.js';
import { bladeSpans, isInside, laneFeet, turned, type Span } from './lanes.js';
import { strokeLengthMm, sweptParts, turnsLeft, type Stroke } from './stroke.js';

/** How the film is held first. @source common practice */
export type LockSchool = 'tee' | 'cross' | 'x' | 'centre-line';

export interface SqueegeeRequest {
  /** What film lies on, seen from the side that is worked on: anticlockwise, mm. */
  readonly outline: Polygon;
  /** Openings in the film (handles, vents): rings inside the outline. */
  readonly holes?: readonly Polygon[];
  readonly bladeMm: number;
  /** Least overlap of neighbouring strokes. */
  readonly overlapMm: number;
  readonly lock: LockSchool;
  /** How far from frame and gasket the film ends once it is trimmed. */
  readonly edgeGapMm: number;
  /** Thick film: a second hard pass, strokes half over one another. */
  readonly isThick: boolean;
}

export type PassName = 'lock' | 'light' | 'hard' | 'edges';
/** Strokes in the order they are made. */
export interface Pass {
  readonly name: PassName;
  readonly strokes: readonly Stroke[];
}
/** A corner that no blade gets into: pressed with a finger before anything is trimmed. */
export interface CornerRelief {
  readonly at: Vec;
  readonly angleDeg: number;
}
export interface SqueegeePlan {
  readonly passes: readonly Pass[];
  /** Stop line of the first pass: the water stays inside it until the film is trimmed. */
  readonly stopLine: Polygon;
  readonly corners: readonly CornerRelief[];
  readonly strokeCount: number;
  readonly lengthMm: number;
  readonly minutes: number;
  /** Area where strokes leave a gap or overlap too little, mm²: of the light pass within the stop line, of the hard pass within the film. Always under `MISSED_MM2`. */
  readonly missedMm2: { readonly light: number; readonly hard: number };
  readonly bladeMm: number;
}
export type SqueegeeAnswer = { readonly ok: true; readonly plan: SqueegeePlan } | { readonly ok: false; readonly why: string };

/** Round an opening strokes go closer: it is cut before the film is wet, nothing is trimmed there. @source house rule */
const HOLE_STOP_MM = 2;
/** Smaller blades and cards in the bag, for what the large one does not reach. @source common practice, from memory */
const SMALLER_MM = [300, 150, 100, 50, 25, 12] as const;
/** Up to here it is a card in the hand, no squeegee. @source house list */
const CARD_MM = 100;
/** Below this it is the finger itself, drawn along. @source house rule */
const FINGER_TIP_MM = 12;
/** A finger, or the card's corner in paper towel, presses this far round a corner, and in a sharp one as far as it is no wider than a finger. @source house rule */
const FINGER = { reachMm: 60, widthMm: 25 } as const;
const fingerReachMm = (angleDeg: number): number => Math.max(FINGER.reachMm, FINGER.widthMm / 2 / Math.tan((angleDeg * Math.PI) / 360) + FINGER.widthMm);
/** What is left below this is no gap: rounding of bent edges. @source house rule */
export const MISSED_MM2 = 25;
/** Sides that turn less than this are one bent edge to the hand. @source house rule */
const BEND_DEG = 30;
/** Bent edges as straight pieces within this, which the overlap swallows. @source house rule */
const BEND_ERROR_MM = 3;
/** More goes along edges than this are no plan a hand can follow. @source house rule */
const MOST_CLOSERS = 40;
/** Speed of the blade and the time to set it down again. @source house figures; logged times take their place */
const SPEED_MM_PER_S = { lock: 300, light: 300, hard: 150, edges: 100 } as const;
const SET_DOWN_S = 1.5;

/** Leaves out corners of a bent edge while it stays within the error, so that the hand has fewer pieces to follow. */
function coarse(ring: Polygon): Polygon {
  let kept = [...ring];
  for (let i = 0; kept.length > 3 && i < kept.length;) {
    const [a, b, c] = [kept[(i + kept.length - 1) % kept.length]!, kept[i]!, kept[(i + 1) % kept.length]!];
    const base = distance(a, c);
    const off = base === 0 ? Infinity : Math.abs((c.x - a.x) * (b.y - a.y) - (c.y - a.y) * (b.x - a.x)) / base;
    const turn = 180 - cornerAngleDeg([a, b, c], 1);
    // only what lies outside the new side may go: the blade is to stay inside
    if (off < BEND_ERROR_MM / 2 && turn < BEND_DEG && turnsLeft(a, b, c)) {
      kept = kept.filter((_, k) => k !== i);
      i++;
    } else i++;
  }
  return kept;
}

/** A field: its outline anticlockwise, its holes clockwise, so that film is always on the left. */
type Field = readonly Polygon[];

/** Inside the stop line: outline moved in, holes moved out. Null: nothing is left, or it falls apart. */
function fieldOf(outline: Polygon, holes: readonly Polygon[], stopMm: number, holeStopMm = Math.min(Math.max(stopMm, 1), HOLE_STOP_MM)): Field | null {
  const inner = stopMm > 0 ? offsetOutline(outline, -stopMm) : outline;
  if (!inner) return null;
  const ring = coarse(inner);
  const grown: Polygon[] = [];
  for (const h of holes) {
    const out = offsetOutline(signedArea(h) < 0 ? [...h].reverse() : h, holeStopMm);
    if (!out) return null;
    grown.push(out);
  }
  if (grown.every((h) => h.every((p) => isInside([ring], p)))) return [ring, ...grown.map((h) => [...h].reverse())];
  // an opening that reaches the stop line takes a bite out of the outline
  const region = grown.reduce((r, h) => without(r, regionOf(h)), regionOf(ring));
  return region.length === 1 ? ringsOf(region).map((r, i) => (signedArea(r) < 0 === (i === 0) ? [...r].reverse() : r)) : null;
}

/** Strokes in one direction, as spans on a lane. */
function strokeOnLane(angle: number, span: Span, foot: number, blade: number, how: Stroke['how'], tool: Stroke['tool'] = 'squeegee'): Stroke {
  const y = foot + blade / 2;
  return { tool, bladeMm: blade, how, path: [turned(vec(span[0], y), -angle), turned(vec(span[1], y), -angle)] };
}

/** The line down which the film is held: the middle, or where the longest stroke goes down when something stands in the middle. */
function centreOf(field: Field, blade: number): { x: number; top: number; bottom: number } | null {
  const box = boundingBox(field[0]!);
  const middle = (box.minX + box.maxX) / 2;
  const turnedRings = field.map((r) => r.map((p) => turned(p, -Math.PI / 2)));
  let best: { x: number; top: number; bottom: number } | null = null;
  for (const off of [0, 0.1, -0.1, 0.2, -0.2, 0.3, -0.3]) {
    const x = middle + off * (box.maxX - box.minX);
    // turned by a quarter, x upright becomes y level: (x, y) → (−y, x)
    const longest = bladeSpans(turnedRings, x - blade / 2, x + blade / 2).sort((a, b) => b[1] - b[0] - (a[1] - a[0]))[0];
    if (longest && (!best || longest[1] - longest[0] > best.top - best.bottom + 1)) best = { x, top: -longest[0], bottom: -longest[1] };
  }
  return best;
}

/** The strokes that hold the film before anything else. */
function lockStrokes(field: Field, blade: number, school: LockSchool): Stroke[] {
  const line = centreOf(field, blade);
  if (!line) return [];
  const { x, top, bottom } = line;
  const down = (from: number, to: number): Stroke => ({ tool: 'squeegee', bladeMm: blade, how: 'pull', path: [vec(x, from), vec(x, to)] });
  const outAt = (low: number): Stroke[] =>
    bladeSpans(field, low, low + blade)
      .filter(([a, b]) => a < x && b > x)
      .flatMap(([a, b]) => [strokeOnLane(0, [x, b], low, blade, 'pull'), strokeOnLane(0, [x, a], low, blade, 'pull')]);
  const across = (low: number) => outAt(low).filter((s) => strokeLengthMm(s) > 1);
  const mid = (top + bottom) / 2;
  if (school === 'tee') return [...across(top - blade), down(top, bottom)];
  if (school === 'cross') return [...across(mid - blade / 2), down(mid, top), down(mid, bottom)].filter((s) => strokeLengthMm(s) > 1);
  if (school === 'centre-line') return [down(top, bottom)];
  const box = boundingBox(field[0]!);
  const centre = vec(x, mid);
  return [vec(box.maxX, box.maxY), vec(box.minX, box.maxY), vec(box.maxX, box.minY), vec(box.minX, box.minY)].flatMap((corner) => {
    const to = minus(corner, centre);
    const angle = Math.atan2(to.y, to.x);
    const rings = field.map((r) => r.map((p) => turned(p, angle)));
    const c = turned(centre, angle);
    const span = bladeSpans(rings, c.y - blade / 2, c.y + blade / 2).find(([a, b]) => a <= c.x + 0.1 && b > c.x);
    return span ? [strokeOnLane(angle, [c.x, span[1]], c.y - blade / 2, blade, 'pull')] : [];
  });
}

/** Lane after lane from the top, on each of them from the middle line outwards. */
function fieldStrokes(field: Field, blade: number, overlap: number, middleX: number): Stroke[] {
  const box = boundingBox(field[0]!);
  return laneFeet(box.minY, box.maxY, blade, overlap)
    .reverse()
    .flatMap((foot) =>
      bladeSpans(field, foot, foot + blade).flatMap(([a, b]): Stroke[] => {
        const half = overlap / 2;
        if (a < middleX - half && b > middleX + half)
          return [strokeOnLane(0, [middleX - half, b], foot, blade, 'pull'), strokeOnLane(0, [middleX + half, a], foot, blade, 'pull')];
        return [strokeOnLane(0, (a + b) / 2 >= middleX ? [a, b] : [b, a], foot, blade, 'pull')];
      }),
    )
    .filter((s) => strokeLengthMm(s) > overlap);
}

/** Bent edges as runs of sides: indices into the ring, in order; a run goes all the way round where nothing has a corner. */
function runsOf(ring: Polygon): number[][] {
  const n = ring.length;
  // an edge that bends the other way is no edge a blade can follow without lifting
  const bends = ring.map((p, i) => 180 - cornerAngleDeg(ring, i) < BEND_DEG && turnsLeft(ring[(i + n - 1) % n]!, p, ring[(i + 1) % n]!));
  const first = bends.findIndex((b) => !b);
  if (first < 0) return [Array.from({ length: n }, (_, i) => i)];
  const runs: number[][] = [];
  for (let k = 0; k < n; k++) {
    const i = (first + k) % n;
    if (bends[i] && runs.length) runs.at(-1)!.push(i);
    else runs.push([i]);
  }
  return runs;
}

/** Where the lines through a, b and through c, d meet; between b and c where they hardly turn. */
function meetingOf(a: Vec, b: Vec, c: Vec, d: Vec): Vec {
  const [r, q] = [minus(b, a), minus(d, c)];
  const det = r.x * q.y - r.y * q.x;
  if (Math.abs(det) < 1e-9 * Math.hypot(r.x, r.y) * Math.hypot(q.x, q.y)) return vec((b.x + c.x) / 2, (b.y + c.y) / 2);
  const t = ((c.x - a.x) * q.y - (c.y - a.y) * q.x) / det;
  return vec(a.x + r.x * t, a.y + r.y * t);
}

/**
 * Strokes along an edge, one for each straight piece of it on which this blade lies wholly inside; at the ends of the edge it runs on while it does.
 * Along a bend the blade is set down anew for each piece and carried straight: a blade that turns on the film stretches it. Only the finger follows a bend.
 * The inside is on the left of the ring. @source common practice: "Never turn the blade at an edge: carry it straight"
 * @param insideMm how far from the edge the blade's outer end runs: 0 along the edge itself
 * @returns chains of strokes, each stroke set down where the one before it was lifted
 */
function edgeStrokes(field: Field, ring: Polygon, run: readonly number[], blade: number, insideMm: number): Stroke[][] {
  const tool = blade <= FINGER_TIP_MM ? 'finger' : blade <= CARD_MM ? 'card' : 'squeegee';
  const isRound = run.length === ring.length;
  const legs = run.map((i, k) => {
    const [a, b] = [ring[i]!, ring[(i + 1) % ring.length]!];
    const angle = Math.atan2(b.y - a.y, b.x - a.x);
    const rings = field.map((r) => r.map((p) => turned(p, angle)));
    const [from, to] = [turned(a, angle), turned(b, angle)];
    const [least, most] = [from.x - (k === 0 && !isRound ? blade : 0), to.x + (k === run.length - 1 && !isRound ? blade : 0)];
    return bladeSpans(rings, from.y + insideMm, from.y + insideMm + blade)
      .map(([p, q]): Span => [Math.max(p, least), Math.min(q, most)])
      .filter(([p, q]) => q - p > 1 && p < to.x && q > from.x)
      .map((span) => ({ stroke: strokeOnLane(angle, span, from.y + insideMm, blade, 'push', tool), starts: span[0] - from.x < 1, ends: to.x - span[1] < 1 }));
  });
  const chains: { strokes: Stroke[]; starts: boolean; ends: boolean }[] = [];
  for (const leg of legs)
    for (const { stroke, starts, ends } of leg) {
      const before = chains.at(-1);
      if (before?.ends && starts) {
        before.strokes.push(stroke);
        before.ends = ends;
      } else chains.push({ strokes: [stroke], starts, ends });
    }
  const [only] = chains;
  const isClosed = isRound && chains.length === 1 && only!.strokes.length > 2 && only!.starts && only!.ends;
  if (tool === 'finger') return chains.map((c) => [fingerAlong(c.strokes, isClosed)]);
  return chains.map((c) => c.strokes.map((s, i) => ({ ...s, joins: { before: i > 0 || isClosed, after: i + 1 < c.strokes.length || isClosed } })));
}

/** A finger goes round the bend: one path through where the straight pieces meet. */
function fingerAlong(strokes: readonly Stroke[], isClosed: boolean): Stroke {
  const path: Vec[] = [...strokes[0]!.path];
  for (const { path: next } of strokes.slice(1)) path.push(meetingOf(path.at(-2)!, path.pop()!, next[0]!, next[1]!), next[1]!);
  if (isClosed) {
    const start = meetingOf(path.at(-2)!, path.at(-1)!, path[0]!, path[1]!);
    path.splice(0, 1, start);
    path.splice(-1, 1, start);
  }
  return { ...strokes[0]!, path };
}

/** Takes what the strokes press off a region; narrowed, so that what is left is a gap or too small an overlap. */
const left = (region: ConvexParts, strokes: readonly Stroke[], lessMm: number): ConvexParts =>
  strokes.reduce((r, s) => sweptParts(s, lessMm).reduce((rest, part) => partsWithout(rest, part), r), region);

/** Everything that could close a gap: along each edge with every blade, a second and third row inside it, and a finger in each corner. */
function gapClosers(field: Field, main: number, overlap: number, isNarrowed: boolean): { strokes: readonly Stroke[]; lessMm: number }[] {
  const out: { strokes: readonly Stroke[]; lessMm: number }[] = [];
  for (const blade of [main, ...SMALLER_MM.filter((b) => b < main)]) {
    const shared = Math.min(overlap, blade / 2);
    for (const ring of field)
      for (const run of runsOf(ring))
        for (const row of run.length > 1 ? [0] : [0, 1, 2])
          for (const strokes of edgeStrokes(field, ring, run, blade, row * (blade - shared))) out.push({ strokes, lessMm: isNarrowed ? shared / 2 : 0 });
  }
  for (const ring of field)
    for (const [i, p] of ring.entries()) {
      const angle = cornerAngleDeg(ring, i);
      if (angle < 150) out.push({ strokes: [{ tool: 'finger', bladeMm: fingerReachMm(angle), how: 'press', path: [p] }], lessMm: 0 });
    }
  return out;
}

/** Takes, again and again, the stroke that closes most of what is left, until nothing is or none helps. */
function closeGaps(field: Field, target: ConvexParts, main: number, overlap: number, isNarrowed: boolean): { strokes: Stroke[]; rest: ConvexParts } {
  const strokes: Stroke[] = [];
  let [rest, taken] = [target, 0];
  if (partsArea(rest) < MISSED_MM2) return { strokes, rest };
  const closers = gapClosers(field, main, overlap, isNarrowed);
  for (let area = partsArea(rest); area >= MISSED_MM2 && taken < MOST_CLOSERS; area = partsArea(rest)) {
    let best: { strokes: readonly Stroke[]; rest: ConvexParts; area: number } | null = null;
    for (const c of closers) {
      const after = left(rest, c.strokes, c.lessMm);
      const a = partsArea(after);
      if (!best || a < best.area - 1) best = { strokes: c.strokes, rest: after, area: a };
    }
    if (!best || area - best.area < 1) break;
    strokes.push(...best.strokes);
    [rest, taken] = [best.rest, taken + 1];
  }
  return { strokes: [...strokes.filter((s) => s.tool !== 'finger'), ...strokes.filter((s) => s.tool === 'finger')], rest };
}

/** Strokes over a whole field and what they leave. @param first strokes made before them @param lanes how the field is gone over */
function coverField(
  field: Field,
  blade: number,
  overlap: number,
  first: readonly Stroke[],
  lanes: readonly Stroke[],
): { strokes: Stroke[]; missedMm2: number } {
  const half = overlap / 2;
  const inner = trapezoidsOf(fieldOf(field[0]!, field.slice(1), half, half) ?? field);
  // first with every stroke narrowed by half the overlap, then what is narrower than the overlap: it must be pressed too
  const seams = closeGaps(field, left(inner, [...first, ...lanes], half), blade, overlap, true);
  const strips = closeGaps(field, left(trapezoidsOf(field), [...first, ...lanes, ...seams.strokes], 0), blade, overlap, false);
  return { strokes: [...lanes, ...seams.strokes, ...strips.strokes], missedMm2: Math.max(partsArea(seams.rest), partsArea(strips.rest)) };
}

/** Lanes from the top, from the middle of the pane or of the strokes that hold it. */
function lanesFromTop(field: Field, blade: number, overlap: number, first: readonly Stroke[]): Stroke[] {
  const box = boundingBox(field[0]!);
  return fieldStrokes(field, blade, overlap, first.at(-1)?.path[0]!.x ?? (box.minX + box.maxX) / 2);
}

/** The last look round: a card in paper towel along every edge of the film. */
function bumpStrokes(outline: Polygon): Stroke[] {
  const ring = coarse(outline);
  return runsOf(ring).map((run) => ({
    tool: 'card' as const,
    bladeMm: 25,
    how: 'push' as const,
    path: [...run.map((i) => ring[i]!), ring[(run.at(-1)! + 1) % ring.length]!],
  }));
}

/**
 * The order of strokes for a pane of any outline: hold the film, press the water out of the field from the middle outwards and stop short of
 * the frame, relieve the corners; after trimming press hard from the middle out to the cut edges, then bump every edge.
 * Full overlap is proven by narrowing every stroke by half the overlap and looking for what is left; a plan that leaves anything is not offered.
 * @returns why there is none, in a sentence, when the pane is too narrow for any blade
 * @source common practice (order, stop, overlap); docs/models/lay.md
 */
export function planSqueegee(request: SqueegeeRequest): SqueegeeAnswer {
  const beyond = beyondHands(request);
  if (beyond) return { ok: false, why: beyond };
  const holes = request.holes ?? [];
  const field = fieldOf(request.outline, holes, EDGE_STOP_MM);
  const film = fieldOf(request.outline, holes, request.edgeGapMm);
  if (!field || !film)
    return { ok: false, why: `Within ${EDGE_STOP_MM} mm of its frame this pane falls apart or nothing is left: lay it by hand with a card.` };
  const box = boundingBox(field[0]!);
  const across = Math.min(box.maxX - box.minX, box.maxY - box.minY);
  const fits = [request.bladeMm, ...SMALLER_MM.filter((b) => b < request.bladeMm)].filter(
    (b) => b <= across && b > request.overlapMm && (box.maxY - box.minY) / (b - request.overlapMm) <= MOST_LANES,
  );
  let least = Infinity;
  for (const bladeMm of fits) {
    const first = lockStrokes(field, bladeMm, request.lock);
    if (first.length === 0) continue;
    const hardOverlapMm = request.isThick ? Math.max(request.overlapMm, bladeMm / 2) : request.overlapMm;
    const light = coverField(field, bladeMm, request.overlapMm, first, lanesFromTop(field, bladeMm, request.overlapMm, first));
    const hard = coverField(film, bladeMm, hardOverlapMm, [], lanesFromTop(film, bladeMm, hardOverlapMm, []));
    least = Math.min(least, Math.max(light.missedMm2, hard.missedMm2));
    if (light.missedMm2 >= MISSED_MM2 || hard.missedMm2 >= MISSED_MM2) continue;
    const repeat = request.isThick ? 2 : 1;
    const passes: Pass[] = [
      { name: 'lock', strokes: first },
      { name: 'light', strokes: light.strokes },
      { name: 'hard', strokes: Array.from({ length: repeat }, () => hard.strokes).flat() },
      { name: 'edges', strokes: bumpStrokes(film[0]!) },
    ];
    return { ok: true, plan: planOf(passes, field[0]!, bladeMm, { light: light.missedMm2, hard: hard.missedMm2 }) };
  }
  return { ok: false, why: noOrder(fits.length > 0, request.overlapMm, least) };
}

/** Larger than any pane that film is laid on in one piece; more lanes than anybody strokes. @source house limits */
const LARGEST_MM = 20_000;
const MOST_LANES = 400;

/** Why nobody lays this by hand, before anything is worked out; null: they do. */
function beyondHands({ outline, bladeMm, overlapMm }: Pick<SqueegeeRequest, 'outline' | 'bladeMm' | 'overlapMm'>): string | null {
  const box = boundingBox(outline);
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  if (!(Math.max(w, h) <= LARGEST_MM)) return `This outline is ${Math.round(Math.max(w, h) / 1000)} m long: no film is laid on such a pane in one piece.`;
  const lanes = (b: number) => h / Math.max(1, b - overlapMm);
  const widest = Math.max(bladeMm, overlapMm + 1);
  return lanes(widest) > MOST_LANES
    ? `With a blade of ${bladeMm} mm and ${overlapMm} mm of overlap that is ${Math.round(lanes(widest))} lanes: take a wider blade or less overlap.`
    : null;
}

const noOrder = (fitsBlade: boolean, overlapMm: number, leastMm2: number): string =>
  fitsBlade
    ? `No order of strokes with ${overlapMm} mm of overlap reaches all of this pane: ${(leastMm2 / 100).toFixed(0)} cm² would stay wet. Take a smaller overlap, or lay it by hand with a card.`
    : `This pane is narrower than every blade: lay it by hand with a card.`;

/** Passes with their figures. */
function planOf(passes: readonly Pass[], stopLine: Polygon, bladeMm: number, missedMm2: SqueegeePlan['missedMm2']): SqueegeePlan {
  const seconds = passes.reduce((s, p) => s + p.strokes.reduce((t, k) => t + strokeLengthMm(k) / SPEED_MM_PER_S[p.name] + SET_DOWN_S, 0), 0);
  return {
    passes,
    stopLine,
    corners: stopLine.flatMap((at, i) => (cornerAngleDeg(stopLine, i) <= 150 ? [{ at, angleDeg: cornerAngleDeg(stopLine, i) }] : [])),
    strokeCount: passes.reduce((s, p) => s + p.strokes.length, 0),
    lengthMm: passes.reduce((s, p) => s + p.strokes.reduce((t, k) => t + strokeLengthMm(k), 0), 0),
    minutes: seconds / 60,
    missedMm2,
    bladeMm,
  };
}

export interface QuartersRequest extends Pick<SqueegeeRequest, 'bladeMm' | 'overlapMm' | 'isThick'> {
  /** Edge of the film that was formed and trimmed, seen from the side that is worked on: anticlockwise, mm. */
  readonly outline: Polygon;
  /** The line from which film was formed, its left and its right end. */
  readonly line: readonly [Vec, Vec];
}

/** The outermost lane under a crown is at least this long, as a share of the one over the line. @source house rule */
const CROWN_LANE_FRAC = 0.75;
const CROWN_STEP_MM = 2;

/** Lanes along the line, the first ones over it, each from its middle outwards: left above, right above, left below, right below. */
function quarterStrokes(field: Field, blade: number, overlap: number, [from, to]: QuartersRequest['line']): Stroke[] {
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  const rings = field.map((r) => r.map((p) => turned(p, angle)));
  const box = boundingBox(rings[0]!);
  const [lineY, middleX, half] = [turned(from, angle).y, (turned(from, angle).x + turned(to, angle).x) / 2, overlap / 2];
  const lengthOf = (foot: number): number => bladeSpans(rings, foot, foot + blade).reduce((sum, [a, b]) => sum + b - a, 0);
  const whole = lengthOf(lineY - blade / 2);
  // under a crown the outermost lane lies where most of it still has film under it; what is left above it is one stroke along the edge
  const outermost = (from: number, step: 1 | -1): number => {
    let end = from;
    while (lengthOf(step > 0 ? end : end - blade) < CROWN_LANE_FRAC * whole && Math.abs(end - lineY) > blade) end += step * CROWN_STEP_MM;
    return end;
  };
  const [lowest, highest] = [outermost(box.minY, 1), outermost(box.maxY, -1)];
  const quarter = (side: 'above' | 'below', way: -1 | 1): Stroke[] => {
    const [low, high] = side === 'above' ? [Math.max(box.minY, lineY - half), highest] : [lowest, Math.min(box.maxY, lineY + half)];
    // where the blade is higher than what there is on this side, a smaller one
    const fits = [blade, ...SMALLER_MM.filter((b) => b < blade)].find((b) => b <= high - low && b > overlap);
    if (fits === undefined) return [];
    const feet = laneFeet(low, high, fits, overlap);
    return (side === 'above' ? feet : feet.reverse())
      .flatMap((foot) =>
        bladeSpans(rings, foot, foot + fits).flatMap(([a, b]): Stroke[] => {
          const [left, right] = [Math.min(b, middleX + half), Math.max(a, middleX - half)];
          if (way < 0) return a < left ? [strokeOnLane(angle, [left, a], foot, fits, 'pull')] : [];
          return right < b ? [strokeOnLane(angle, [right, b], foot, fits, 'pull')] : [];
        }),
      )
      .filter((s) => strokeLengthMm(s) > fits); // a shorter one is done along the edge
  };
  return [...quarter('above', -1), ...quarter('above', 1), ...quarter('below', -1), ...quarter('below', 1)];
}

/**
 * The order of strokes for film that was formed and trimmed before it was laid: out from its line in four quarters, water to the side, then hard in the same order,
 * then every edge bumped. Proven like a flat pane's. Lengths are those in the plane of the pane's corners.
 * @returns why there is none, in a sentence
 * @source common practice (out from the anchor in four quarters, hard second pass, bump edges)
 */
export function planQuarters(request: QuartersRequest): SqueegeeAnswer {
  const { overlapMm, line } = request;
  const beyond = beyondHands(request);
  if (beyond) return { ok: false, why: beyond };
  const film = fieldOf(request.outline, [], 0);
  if (!film) return { ok: false, why: noOrder(false, overlapMm, 0) };
  const box = boundingBox(film[0]!);
  const across = Math.min(box.maxX - box.minX, box.maxY - box.minY);
  const fits = [request.bladeMm, ...SMALLER_MM.filter((b) => b < request.bladeMm)].filter(
    (b) => b <= across && b > overlapMm && (box.maxY - box.minY) / (b - overlapMm) <= MOST_LANES,
  );
  let least = Infinity;
  for (const bladeMm of fits) {
    const hardOverlapMm = request.isThick ? Math.max(overlapMm, bladeMm / 2) : overlapMm;
    const light = coverField(film, bladeMm, overlapMm, [], quarterStrokes(film, bladeMm, overlapMm, line));
    const hard = hardOverlapMm === overlapMm ? light : coverField(film, bladeMm, hardOverlapMm, [], quarterStrokes(film, bladeMm, hardOverlapMm, line));
    least = Math.min(least, Math.max(light.missedMm2, hard.missedMm2));
    if (light.missedMm2 >= MISSED_MM2 || hard.missedMm2 >= MISSED_MM2) continue;
    const passes: Pass[] = [
      { name: 'light', strokes: light.strokes },
      { name: 'hard', strokes: hard.strokes },
      { name: 'edges', strokes: bumpStrokes(film[0]!) },
    ];
    return { ok: true, plan: planOf(passes, film[0]!, bladeMm, { light: light.missedMm2, hard: hard.missedMm2 }) };
  }
  return { ok: false, why: noOrder(fits.length > 0, overlapMm, least) };
}
