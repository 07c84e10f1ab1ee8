import type { Masonry, MeasureKey, Wall, WallBreak, WallEnd, WallMeasure } from '@yellow-pane/contracts';
import { boundingBox, distance, signedArea, vec, type Polygon, type Vec } from '../geometry/index.js';
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
  /** Whether its ceiling or its floor breaks somewhere: a gable, a beam, stairs. */
  readonly isBroken: { readonly floor: boolean; readonly ceiling: boolean };
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
export type WallLine = 'floor' | 'ceiling';

/** Something besides the tapes of its outline that does not fit. */
export type WallDoubt =
  | { readonly is: 'outside'; readonly part: string; readonly byMm: number }
  | { readonly is: 'corner-height'; readonly part: null; readonly side: WallSide; readonly byMm: number }
  | { readonly is: 'break-outside' | 'break-crossed'; readonly part: string; readonly byMm: number }
  /** Where a line breaks, both its ends have to be taped from the level line too. */
  | { readonly is: 'break-untaped'; readonly part: null; readonly line: WallLine }
  | { readonly is: 'courses' | 'units'; readonly part: null; readonly counted: number; readonly expected: number };

/** What is known of one wall, and how sure: nothing without a width and a height; doubtful too where its tapes agree but something else does not fit. */
export interface WallSurvey extends TapedSurvey<WallBody> {
  readonly corners: Readonly<Record<WallSide, WallCorner>>;
  readonly doubts: readonly WallDoubt[];
}

/** What of a wall its survey looks at besides the tapes. */
export interface WallParts extends Pick<Wall, 'hardware' | 'masonry'> {
  /** Left out: there are none. */
  readonly breaks?: readonly WallBreak[];
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
/** Of a line that breaks nothing is usual. */
const ANY_MM = 1e5;

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
/** Where floor and ceiling break, as far as the level line and both their ends are taped: without them nobody knows where a break stands. */
interface Broken {
  readonly floor: readonly WallBreak[];
  readonly ceiling: readonly WallBreak[];
}
const STRAIGHT: Broken = { floor: [], ceiling: [] };
const endsKnown: Readonly<Record<WallLine, (taken: ReadonlySet<MeasureKey>) => boolean>> = {
  floor: (taken) => all(taken, 'downLeft', 'downRight'),
  // a height over a floor that is known says where its ceiling is
  ceiling: (taken) => all(taken, 'upLeft', 'upRight') || (all(taken, 'downLeft', 'downRight') && all(taken, 'heightLeft', 'heightRight')),
};
function brokenOf(breaks: readonly WallBreak[], taken: ReadonlySet<MeasureKey>): Broken {
  const inOrder = [...breaks].sort((a, b) => a.fromLeftMm - b.fromLeftMm);
  return {
    floor: endsKnown.floor(taken) ? inOrder.filter((b) => b.downMm !== null) : [],
    ceiling: endsKnown.ceiling(taken) ? inOrder.filter((b) => b.upMm !== null) : [],
  };
}

function seatsOf(taken: ReadonlySet<MeasureKey>, isHanging: boolean, { floor, ceiling }: Broken): Seats {
  let count = 6;
  const take = (is: boolean): number | null => (is ? count++ : null);
  const [ups, downs, heights] = [all(taken, 'upLeft', 'upMiddle', 'upRight'), all(taken, 'downLeft', 'downMiddle', 'downRight'), all(taken, 'heightLeft', 'heightMiddle', 'heightRight')]; // prettier-ignore
  const line = take(drops.some((k) => taken.has(k)));
  const sagFloor = take(floor.length === 0 && (downs || (ups && heights)));
  const sagCeiling = take(ceiling.length === 0 && (isHanging || ups || (downs && heights)));
  return { width: 0, taper: 1, rack: 2, height: 3, riseFloor: 4, riseCeiling: 5, line, sagFloor, sagCeiling, count };
}
const at = (p: Numbers, seat: number | null): number => (seat === null ? 0 : p[seat]!);

/** Height of a line of places at x, held level beyond its ends. */
function levelAt(line: readonly Vec[], x: number): number {
  const next = line.findIndex((p) => p.x >= x);
  if (next === 0) return line[0]!.y;
  if (next < 0) return line.at(-1)!.y;
  const [a, b] = [line[next - 1]!, line[next]!];
  return a.y + ((b.y - a.y) * (x - a.x)) / Math.max(1e-9, b.x - a.x);
}

/** The six places that tapes go to, and where floor and ceiling break between them. */
function placesOf(p: Numbers, s: Seats, broken: Broken) {
  const [w, taper, rack, h] = [p[s.width]!, p[s.taper]!, p[s.rack]!, p[s.height]!];
  const [floor, ceiling] = [p[s.riseFloor]! / 2, p[s.riseCeiling]! / 2];
  const line = at(p, s.line);
  const floorBreaks = broken.floor.map((b) => vec(b.fromLeftMm, line - b.downMm!));
  const ceilingBreaks = broken.ceiling.map((b) => vec(b.fromLeftMm, line + b.upMm!));
  const ends = {
    footLeft: vec(0, -floor),
    footRight: vec(w, floor),
    topLeft: vec(rack - taper / 2, h - ceiling),
    topRight: vec(w + rack + taper / 2, h + ceiling),
  };
  return {
    ...ends,
    floorBreaks,
    ceilingBreaks,
    footMiddle: vec(w / 2, floorBreaks.length ? levelAt([ends.footLeft, ...floorBreaks, ends.footRight], w / 2) : -at(p, s.sagFloor)),
    topMiddle: vec(w / 2 + rack, ceilingBreaks.length ? levelAt([ends.topLeft, ...ceilingBreaks, ends.topRight], w / 2 + rack) : h - at(p, s.sagCeiling)),
  };
}
const half = (a: Vec, b: Vec): Vec => vec((a.x + b.x) / 2, (a.y + b.y) / 2);

function readingOf(p: Numbers, s: Seats, key: OutlineMeasure, broken: Broken): number {
  const c = placesOf(p, s, broken);
  const line = at(p, s.line);
  switch (key) {
    // along a line that breaks nobody tapes: level, from end to end
    case 'widthTop':
      return broken.ceiling.length ? c.topRight.x - c.topLeft.x : distance(c.topLeft, c.topRight);
    case 'widthMiddle':
      return broken.floor.length + broken.ceiling.length
        ? half(c.footRight, c.topRight).x - half(c.footLeft, c.topLeft).x
        : distance(half(c.footLeft, c.topLeft), half(c.footRight, c.topRight));
    case 'widthBottom':
      return broken.floor.length ? c.footRight.x - c.footLeft.x : distance(c.footLeft, c.footRight);
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
export function wallModel(taken: ReadonlySet<MeasureKey>, isHanging = false, broken: Broken = STRAIGHT): TapedModel {
  const s = seatsOf(taken, isHanging, broken);
  const count = (start: string) => [...taken].filter((k) => k.startsWith(start)).length;
  const off = (seat: number, sigmaMm: number) => (p: Numbers): Usual => ({ offMm: p[seat]!, sigmaMm }); // prettier-ignore
  const numbers: readonly { readonly usual: (p: Numbers) => Usual; readonly isFixed: boolean }[] = [
    { usual: off(s.taper, USUAL_MM.taper), isFixed: count('width') >= 2 },
    { usual: off(s.rack, USUAL_MM.rack), isFixed: count('diagonal') >= 1 },
    { usual: off(s.riseFloor, broken.floor.length ? ANY_MM : USUAL_MM.rise), isFixed: all(taken, 'downLeft', 'downRight') },
    {
      usual: off(s.riseCeiling, broken.floor.length + broken.ceiling.length ? ANY_MM : USUAL_MM.rise),
      isFixed: all(taken, 'heightLeft', 'heightRight') || all(taken, 'upLeft', 'upRight'),
    },
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
    reading: (p, key) => (isOutlineKey(key) ? readingOf(p, s, key, broken) : 0),
    usual: (p) => numbers.map((n) => n.usual(p)),
    fills: (p) => numbers.filter((n) => !n.isFixed).map((n) => n.usual(p)),
    sigmaMm: (key) => (drops.includes(key) ? DROP_SIGMA_MM : null),
  };
  if (isHanging || broken.ceiling.length || broken.floor.length || s.sagCeiling !== null || !all(taken, 'heightLeft', 'heightMiddle', 'heightRight'))
    return model;
  const hanging = wallModel(taken, true);
  const sizeMm = (p: Numbers) => p[seatsOf(taken, true, STRAIGHT).sagCeiling!]!;
  return { ...model, otherwise: [{ is: 'hanging', model: hanging, prior: PRIOR.bowed, spreadMm: USUAL_MM.sag, sizeMm }] };
}

function bodyOf(fit: Fit, taken: ReadonlySet<MeasureKey>, broken: Broken, isHanging = false): WallBody {
  const s = seatsOf(taken, isHanging, broken);
  const p = fit.shape;
  const c = placesOf(p, s, broken);
  const floor = [c.footLeft, ...c.floorBreaks, ...(s.sagFloor === null ? [] : [c.footMiddle]), c.footRight];
  const ceiling = [c.topLeft, ...c.ceilingBreaks, ...(s.sagCeiling === null ? [] : [c.topMiddle]), c.topRight];
  const reading = (q: Numbers, key: OutlineMeasure) => readingOf(q, s, key, broken);
  const spread = (f: (q: Numbers) => number) => Math.sqrt(Math.max(0, quadratic(slopeOf(f, p), fit.covariance)));
  const isLevelled = all(taken, 'downLeft', 'downRight') || all(taken, 'upLeft', 'upRight');
  return {
    outline: [...floor, ...[...ceiling].reverse()],
    floor,
    ceiling,
    widthMm: { top: reading(p, 'widthTop'), bottom: reading(p, 'widthBottom') },
    heightMm: { left: reading(p, 'heightLeft'), right: reading(p, 'heightRight') },
    riseMm: isLevelled ? { floor: p[s.riseFloor]!, ceiling: p[s.riseCeiling]! } : null,
    isBroken: { floor: broken.floor.length > 0, ceiling: broken.ceiling.length > 0 },
    sagMm: { floor: at(p, s.sagFloor), ceiling: at(p, s.sagCeiling) },
    rackMm: taken.has('diagonalDown') || taken.has('diagonalUp') ? p[s.rack]! : null,
    sigmaMm: {
      width: Math.max(spread((q) => reading(q, 'widthTop')), spread((q) => reading(q, 'widthBottom'))), // prettier-ignore
      height: Math.max(spread((q) => reading(q, 'heightLeft')), spread((q) => reading(q, 'heightRight'))), // prettier-ignore
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

/** Breaks that stand beside the wall, lines that cross, and lines of which an end is not taped. */
function doubtsOfBreaks(breaks: readonly WallBreak[], taken: ReadonlySet<MeasureKey>, body: WallBody): WallDoubt[] {
  const endMm = Math.max(body.floor.at(-1)!.x, body.ceiling.at(-1)!.x);
  const untaped = (['floor', 'ceiling'] as const).filter(
    (line) => breaks.some((b) => b[line === 'floor' ? 'downMm' : 'upMm'] !== null) && !endsKnown[line](taken),
  );
  return [
    ...untaped.map((line): WallDoubt => ({ is: 'break-untaped', part: null, line })),
    ...breaks.flatMap((b): WallDoubt[] => {
      const past = b.fromLeftMm - endMm;
      if (past > OUTSIDE_MM) return [{ is: 'break-outside', part: b.id, byMm: past }];
      // at the break itself, and just beside it: of a beam both of its sides
      const high = Math.min(...[-1, 0, 1].map((d) => levelAt(body.ceiling, b.fromLeftMm + d) - levelAt(body.floor, b.fromLeftMm + d)));
      return high <= 0 ? [{ is: 'break-crossed', part: b.id, byMm: -high }] : [];
    }),
  ];
}
/** A break past the end by no more than this is at the end. @source house rule: two tapes read differently by so much */
const OUTSIDE_MM = 10;

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
  const broken = brokenOf(parts.breaks ?? [], taken);
  const model = wallModel(taken, false, broken);
  const { survey, asTaped: body } = judgeTaped({
    model,
    used,
    cannotCheck: untold(taken),
    bodyOf: (fit, isHanging) => bodyOf(fit, taken, broken, isHanging),
    tape,
    levels,
  });
  if (!body) return { ...survey, corners, doubts: [] };
  const doubts: WallDoubt[] = [
    ...parts.hardware.flatMap((h): WallDoubt[] => {
      const byMm = outsideByMm(h, body.outline);
      return byMm === null ? [] : [{ is: 'outside', part: h.id, byMm }];
    }),
    ...doubtsOfBreaks(parts.breaks ?? [], taken, body),
    ...(parts.masonry && !body.isBroken.floor && !body.isBroken.ceiling ? doubtsOfMasonry(parts.masonry, body) : []),
    ...doubtOfCorner('left', corners.left.beside, body),
    ...doubtOfCorner('right', corners.right.beside, body),
  ];
  return { ...survey, status: doubtedIf(survey.status, doubts.length > 0), corners, doubts };
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
/** How high it is at each place where its floor or its ceiling begins, breaks or ends. */
export const wallHeights = ({ floor, ceiling }: WallBody): number[] => [...floor, ...ceiling].map(({ x }) => levelAt(ceiling, x) - levelAt(floor, x));
/** A line of a wall between two places, from end to end, x from its left edge. */
function lineBetween(line: readonly Vec[], leftMm: number, fromMm: number, toMm: number): Vec[] {
  const at = (x: number) => vec(x, levelAt(line, x + leftMm));
  return [at(fromMm), ...line.filter((q) => q.x - leftMm > fromMm && q.x - leftMm < toMm).map((q) => vec(q.x - leftMm, q.y)), at(toMm)];
}
/** The ceiling, and the floor, of the most probable wall between two places, in the frame of `wallSpan`. */
export const ceilingBetween = ({ outline, ceiling }: WallBody, fromMm: number, toMm: number): Vec[] =>
  lineBetween(ceiling, boundingBox(outline).minX, fromMm, toMm);
export const floorBetween = ({ outline, floor }: WallBody, fromMm: number, toMm: number): Vec[] => lineBetween(floor, boundingBox(outline).minX, fromMm, toMm);
/** What film covers of a wall whose lines break, mm²; its box, where they are straight. */
export function wallFaceMm2(survey: WallSurvey): number | null {
  const cover = coverOfWall(survey);
  const { body } = survey;
  if (!cover || !body) return null;
  return body.isBroken.floor || body.isBroken.ceiling ? signedArea(body.outline) : cover.widthMm * cover.heightMm;
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
