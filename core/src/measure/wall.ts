import type { Masonry, MeasureKey, Wall, WallEnd, WallMeasure } from '@yellow-pane/contracts';
import { boundingBox, distance, vec, type Polygon, type Vec } from '../geometry/index.js';
import { handTape, houseLevels, tapeSigmaMm, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import { outsideByMm } from './hardware.js';
import { PRIOR } from './hypotheses.js';
import { doubtedIf, judgeTaped, type TapedSurvey } from './judge-taped.js';
import { quadratic, slopeOf, type Fit, type Numbers, type TapedModel, type Usual } from './taped-model.js';

/** A wall as its tapes make it, as one stands before it. Lengths in mm. */
export interface WallBody {
  /** Anticlockwise from the foot of its left end; y is level where a laser line was used, else the floor is taken for level. */
  readonly outline: Polygon;
  readonly floor: readonly Vec[];
  readonly ceiling: readonly Vec[];
  readonly widthMm: { readonly top: number; readonly bottom: number };
  readonly heightMm: { readonly left: number; readonly right: number };
  /** By how much the floor and the ceiling rise from left to right; null: no level line says so. */
  readonly riseMm: { readonly floor: number; readonly ceiling: number } | null;
  /** By how much the middle hangs below the ends. */
  readonly sagMm: { readonly floor: number; readonly ceiling: number };
  /** By how much its top stands to the right of its foot; null: no diagonal says so. */
  readonly rackMm: number | null;
  /** Standard deviation of the width and of a height, mm. */
  readonly sigmaMm: { readonly width: number; readonly height: number };
}

/** The corner at one end of a wall, with what is known of it from the wall beside it. */
export interface WallCorner extends WallEnd {
  readonly beside: { readonly name: string; readonly heightMm: number | null } | null;
  /** The widest gap between it and a straightedge; null: nobody laid one. */
  readonly wanderMm: number | null;
}
export type WallSide = 'left' | 'right';

/** Something besides the tapes of its outline that does not fit. */
export type WallDoubt =
  | { readonly is: 'outside'; readonly part: string; readonly byMm: number }
  | { readonly is: 'corner-height'; readonly part: null; readonly side: WallSide; readonly byMm: number }
  | { readonly is: 'courses' | 'units'; readonly part: null; readonly counted: number; readonly expected: number };

/** What is known of one wall, and how sure: nothing without a width and a height; doubtful too where its tapes agree but something else does not fit. */
export interface WallSurvey extends TapedSurvey<WallBody> {
  readonly corners: Readonly<Record<WallSide, WallCorner>>;
  readonly doubts: readonly WallDoubt[];
}

/** What of a wall its survey looks at besides the tapes. */
export interface WallParts extends Pick<Wall, 'hardware' | 'masonry'> {
  /** As they stand in the record, or with the wall beside it. */
  readonly corners: Readonly<Record<WallSide, Omit<WallCorner, 'wanderMm'> & { readonly wanderMm?: number | null }>>;
}

/** Measures of a wall's outline in the order one walks with the tape. */
const wallOrder = ['widthTop', 'widthMiddle', 'widthBottom', 'heightLeft', 'heightMiddle', 'heightRight', 'upLeft', 'downLeft', 'upMiddle', 'downMiddle', 'upRight', 'downRight', 'diagonalDown', 'diagonalUp'] as const satisfies readonly WallMeasure[]; // prettier-ignore
type OutlineMeasure = (typeof wallOrder)[number];
const isOutlineKey = (key: MeasureKey): key is OutlineMeasure => (wallOrder as readonly MeasureKey[]).includes(key);
const drops: readonly MeasureKey[] = ['upLeft', 'downLeft', 'upMiddle', 'downMiddle', 'upRight', 'downRight'];

/** A drop from a laser line: its line is 2 mm wide and level to 0.3 mm a metre, 1 σ. @source house rule */
const DROP_SIGMA_MM = 1.5;
/** How far walls usually are out of plumb, of parallel and of level, and how far floors and ceilings hang through, 1 σ. @source house rule, docs/models/walls.md */
const USUAL_MM = { taper: 10, rack: 10, rise: 10, sag: 6 };

interface Seats {
  readonly width: 0;
  readonly taper: 1;
  readonly rack: 2;
  readonly height: 3;
  readonly riseFloor: 4;
  readonly riseCeiling: 5;
  readonly line: number | null;
  readonly sagFloor: number | null;
  readonly sagCeiling: number | null;
  readonly count: number;
}
const all = (taken: ReadonlySet<MeasureKey>, ...keys: MeasureKey[]): boolean => keys.every((k) => taken.has(k));
function seatsOf(taken: ReadonlySet<MeasureKey>, isHanging: boolean): Seats {
  let count = 6;
  const take = (is: boolean): number | null => (is ? count++ : null);
  const [ups, downs, heights] = [all(taken, 'upLeft', 'upMiddle', 'upRight'), all(taken, 'downLeft', 'downMiddle', 'downRight'), all(taken, 'heightLeft', 'heightMiddle', 'heightRight')]; // prettier-ignore
  const line = take(drops.some((k) => taken.has(k)));
  const sagFloor = take(downs || (ups && heights));
  const sagCeiling = take(isHanging || ups || (downs && heights));
  return { width: 0, taper: 1, rack: 2, height: 3, riseFloor: 4, riseCeiling: 5, line, sagFloor, sagCeiling, count };
}
const at = (p: Numbers, seat: number | null): number => (seat === null ? 0 : p[seat]!);

/** The six places that tapes go to. */
function placesOf(p: Numbers, s: Seats) {
  const [w, taper, rack, h] = [p[s.width]!, p[s.taper]!, p[s.rack]!, p[s.height]!];
  const [floor, ceiling] = [p[s.riseFloor]! / 2, p[s.riseCeiling]! / 2];
  return {
    footLeft: vec(0, -floor),
    footMiddle: vec(w / 2, -at(p, s.sagFloor)),
    footRight: vec(w, floor),
    topLeft: vec(rack - taper / 2, h - ceiling),
    topMiddle: vec(w / 2 + rack, h - at(p, s.sagCeiling)),
    topRight: vec(w + rack + taper / 2, h + ceiling),
  };
}
const half = (a: Vec, b: Vec): Vec => vec((a.x + b.x) / 2, (a.y + b.y) / 2);

function readingOf(p: Numbers, s: Seats, key: OutlineMeasure): number {
  const c = placesOf(p, s);
  const line = at(p, s.line);
  switch (key) {
    case 'widthTop':
      return distance(c.topLeft, c.topRight);
    case 'widthMiddle':
      return distance(half(c.footLeft, c.topLeft), half(c.footRight, c.topRight));
    case 'widthBottom':
      return distance(c.footLeft, c.footRight);
    case 'heightLeft':
      return distance(c.footLeft, c.topLeft);
    case 'heightMiddle':
      return distance(c.footMiddle, c.topMiddle);
    case 'heightRight':
      return distance(c.footRight, c.topRight);
    case 'diagonalDown':
      return distance(c.topLeft, c.footRight);
    case 'diagonalUp':
      return distance(c.footLeft, c.topRight);
    case 'upLeft':
      return c.topLeft.y - line;
    case 'upMiddle':
      return c.topMiddle.y - line;
    case 'upRight':
      return c.topRight.y - line;
    case 'downLeft':
      return line - c.footLeft.y;
    case 'downMiddle':
      return line - c.footMiddle.y;
    case 'downRight':
      return line - c.footRight.y;
  }
}

/**
 * A wall as few numbers in a level frame: width at the foot, by how much the top is wider and stands aside, height, how floor and ceiling rise; where a laser line was
 * used its height, where three drops tell it how floor and ceiling hang through. With fewer its ceiling may hang: another truth, weighed beside the slips.
 * @source docs/models/walls.md
 */
export function wallModel(taken: ReadonlySet<MeasureKey>, isHanging = false): TapedModel {
  const s = seatsOf(taken, isHanging);
  const count = (start: string) => [...taken].filter((k) => k.startsWith(start)).length;
  const off = (seat: number, sigmaMm: number) => (p: Numbers): Usual => ({ offMm: p[seat]!, sigmaMm }); // prettier-ignore
  const numbers: readonly { readonly usual: (p: Numbers) => Usual; readonly isFixed: boolean }[] = [
    { usual: off(s.taper, USUAL_MM.taper), isFixed: count('width') >= 2 },
    { usual: off(s.rack, USUAL_MM.rack), isFixed: count('diagonal') >= 1 },
    { usual: off(s.riseFloor, USUAL_MM.rise), isFixed: all(taken, 'downLeft', 'downRight') },
    { usual: off(s.riseCeiling, USUAL_MM.rise), isFixed: all(taken, 'heightLeft', 'heightRight') || all(taken, 'upLeft', 'upRight') },
    ...[s.sagFloor, s.sagCeiling].flatMap((seat) => (seat === null ? [] : [{ usual: off(seat, USUAL_MM.sag), isFixed: true }])),
  ];
  const model: TapedModel = {
    keys: wallOrder,
    start(t) {
      const first = (...keys: MeasureKey[]) => keys.map((k) => t.get(k)).find((v) => v !== undefined);
      const sum = (up: MeasureKey, down: MeasureKey) => (t.has(up) && t.has(down) ? t.get(up)! + t.get(down)! : undefined);
      const width = first('widthBottom', 'widthMiddle', 'widthTop');
      const height =
        first('heightLeft', 'heightMiddle', 'heightRight') ?? sum('upLeft', 'downLeft') ?? sum('upMiddle', 'downMiddle') ?? sum('upRight', 'downRight');
      if (!width || !height) return null;
      const p = new Array<number>(s.count).fill(0);
      p[s.width] = width;
      p[s.height] = height;
      const down = first('downLeft', 'downMiddle', 'downRight');
      const up = first('upLeft', 'upMiddle', 'upRight');
      if (s.line !== null) p[s.line] = down ?? height - (up ?? height / 2);
      return p;
    },
    reading: (p, key) => (isOutlineKey(key) ? readingOf(p, s, key) : 0),
    usual: (p) => numbers.map((n) => n.usual(p)),
    fills: (p) => numbers.filter((n) => !n.isFixed).map((n) => n.usual(p)),
    sigmaMm: (key) => (drops.includes(key) ? DROP_SIGMA_MM : null),
  };
  if (isHanging || s.sagCeiling !== null || !all(taken, 'heightLeft', 'heightMiddle', 'heightRight')) return model;
  const hanging = wallModel(taken, true);
  const sizeMm = (p: Numbers) => p[seatsOf(taken, true).sagCeiling!]!;
  return { ...model, otherwise: [{ is: 'hanging', model: hanging, prior: PRIOR.bowed, spreadMm: USUAL_MM.sag, sizeMm }] };
}

function bodyOf(fit: Fit, taken: ReadonlySet<MeasureKey>, isHanging = false): WallBody {
  const s = seatsOf(taken, isHanging);
  const p = fit.shape;
  const c = placesOf(p, s);
  const floor = [c.footLeft, ...(s.sagFloor === null ? [] : [c.footMiddle]), c.footRight];
  const ceiling = [c.topLeft, ...(s.sagCeiling === null ? [] : [c.topMiddle]), c.topRight];
  const spread = (f: (q: Numbers) => number) => Math.sqrt(Math.max(0, quadratic(slopeOf(f, p), fit.covariance)));
  const isLevelled = all(taken, 'downLeft', 'downRight') || all(taken, 'upLeft', 'upRight');
  return {
    outline: [...floor, ...[...ceiling].reverse()],
    floor,
    ceiling,
    widthMm: { top: readingOf(p, s, 'widthTop'), bottom: readingOf(p, s, 'widthBottom') },
    heightMm: { left: readingOf(p, s, 'heightLeft'), right: readingOf(p, s, 'heightRight') },
    riseMm: isLevelled ? { floor: p[s.riseFloor]!, ceiling: p[s.riseCeiling]! } : null,
    sagMm: { floor: at(p, s.sagFloor), ceiling: at(p, s.sagCeiling) },
    rackMm: taken.has('diagonalDown') || taken.has('diagonalUp') ? p[s.rack]! : null,
    sigmaMm: {
      width: Math.max(spread((q) => readingOf(q, s, 'widthTop')), spread((q) => readingOf(q, s, 'widthBottom'))), // prettier-ignore
      height: Math.max(spread((q) => readingOf(q, s, 'heightLeft')), spread((q) => readingOf(q, s, 'heightRight'))), // prettier-ignore
    },
  };
}

function untold(taken: ReadonlySet<MeasureKey>): string[] {
  const out: string[] = [];
  if (!drops.some((k) => taken.has(k))) out.push('No laser line: whether floor and ceiling are level cannot be said.');
  if (!taken.has('diagonalDown') && !taken.has('diagonalUp')) out.push('No diagonal: whether its ends are plumb cannot be said.');
  return out;
}

/** Counts of courses and units are told apart from the pitch by more than one: cut ones at both ends may hide in it. @source common practice */
function doubtsOfMasonry(m: Masonry, body: WallBody): WallDoubt[] {
  const off = (is: 'courses' | 'units', counted: number | null, expected: number): WallDoubt[] =>
    counted !== null && Math.abs(counted - expected) > 1.5 ? [{ is, part: null, counted, expected: Math.round(expected) }] : [];
  return [
    ...off('courses', m.courses, Math.max(body.heightMm.left, body.heightMm.right) / m.pitchUpMm),
    ...off('units', m.unitsInFirstCourse, body.widthMm.bottom / m.pitchAcrossMm),
  ];
}

/** Told apart at 1 %. */
const APART = 2.58;
/** One corner is one arris: its height is the same from both walls. */
function doubtOfCorner(side: WallSide, beside: WallCorner['beside'], body: WallBody): WallDoubt[] {
  const theirs = beside?.heightMm;
  if (!theirs) return [];
  const byMm = body.heightMm[side] - theirs;
  return Math.abs(byMm) > APART * Math.hypot(body.sigmaMm.height, tapeSigmaMm(theirs)) ? [{ is: 'corner-height', part: null, side, byMm }] : [];
}

/** Judges what was taped of one wall. @param readings in force, at most one per measure, mm */
export function judgeWall(
  parts: WallParts,
  readings: readonly TapeReading[],
  { tape = handTape, levels = houseLevels }: { tape?: TapeError; levels?: TestLevels } = {},
): WallSurvey {
  const used = readings.filter((r) => isOutlineKey(r.measure) && r.lengthMm > 0);
  const taken = new Set(used.map((r) => r.measure));
  const own = (key: MeasureKey) => readings.find((r) => r.measure === key)?.lengthMm ?? null;
  const corner = (side: WallSide): WallCorner => {
    const [mine, theirs] = [own(side === 'left' ? 'wanderLeft' : 'wanderRight'), parts.corners[side].wanderMm ?? null];
    return { ...parts.corners[side], wanderMm: mine === null ? theirs : Math.max(mine, theirs ?? 0) };
  };
  const corners = { left: corner('left'), right: corner('right') };
  const model = wallModel(taken);
  const { survey, asTaped: body } = judgeTaped({
    model,
    used,
    cannotCheck: untold(taken),
    bodyOf: (fit, isHanging) => bodyOf(fit, taken, isHanging),
    tape,
    levels,
  });
  if (!body) return { ...survey, corners, doubts: [] };
  const doubts: WallDoubt[] = [
    ...parts.hardware.flatMap((h): WallDoubt[] => {
      const byMm = outsideByMm(h, body.outline);
      return byMm === null ? [] : [{ is: 'outside', part: h.id, byMm }];
    }),
    ...(parts.masonry ? doubtsOfMasonry(parts.masonry, body) : []),
    ...doubtOfCorner('left', corners.left.beside, body),
    ...doubtOfCorner('right', corners.right.beside, body),
  ];
  return { ...survey, status: doubtedIf(survey.status, doubts.length > 0), corners, doubts };
}

/** Height of a line of places at x, held level beyond its ends. */
function levelAt(line: readonly Vec[], x: number): number {
  const next = line.findIndex((p) => p.x >= x);
  if (next === 0) return line[0]!.y;
  if (next < 0) return line.at(-1)!.y;
  const [a, b] = [line[next - 1]!, line[next]!];
  return a.y + ((b.y - a.y) * (x - a.x)) / Math.max(1e-9, b.x - a.x);
}

/** What film has to cover of a wall between two places: lowest floor and highest ceiling of every explanation, two standard deviations wide; x from its left edge. */
export function wallSpan(survey: WallSurvey, fromMm: number, toMm: number, sigmas = 2): { readonly lowMm: number; readonly highMm: number } | null {
  if (survey.possible.length === 0) return null;
  const of = survey.possible.map((b) => {
    const left = boundingBox(b.outline).minX;
    const within = (line: readonly Vec[]) => [
      levelAt(line, fromMm + left),
      levelAt(line, toMm + left),
      ...line.filter((q) => q.x - left > fromMm && q.x - left < toMm).map((q) => q.y),
    ];
    const spare = sigmas * b.sigmaMm.height;
    return { lowMm: Math.min(...within(b.floor)) - spare / 2, highMm: Math.max(...within(b.ceiling)) + spare / 2 };
  });
  return { lowMm: Math.min(...of.map((o) => o.lowMm)), highMm: Math.max(...of.map((o) => o.highMm)) };
}
/** Where the floor is at a place of the most probable wall, in the frame of `wallSpan`. */
export const floorAt = ({ outline, floor }: WallBody, xMm: number): number => levelAt(floor, xMm + boundingBox(outline).minX);

/** What film has to cover of a wall in all: every explanation of its tapes and two standard deviations. */
export function coverOfWall(survey: WallSurvey, sigmas = 2): { widthMm: number; heightMm: number } | null {
  if (survey.possible.length === 0) return null;
  const width = (b: WallBody) => {
    const box = boundingBox(b.outline);
    return box.maxX - box.minX + sigmas * b.sigmaMm.width;
  };
  const widthMm = Math.max(...survey.possible.map(width));
  const { lowMm, highMm } = wallSpan(survey, 0, widthMm, sigmas)!;
  return { widthMm, heightMm: highMm - lowMm };
}
