import type { Counter, CounterCorner, CounterMeasure, MeasureKey } from '@yellow-pane/contracts';
import { boundingBox, distance, flatten, minus, vec, type ArcPath, type Polygon, type Vec } from '../geometry/index.js';
import { handTape, houseLevels, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import { judgeEdge, type EdgeDoubt, type TapedEdge } from './edge.js';
import { outsideByMm } from './hardware.js';
import { doubtedIf, judgeTaped, type TapedSurvey } from './judge-taped.js';
import { quadratic, slopeOf, type Fit, type Numbers, type TapedModel, type Usual } from './taped-model.js';

/** Corners of a top, anticlockwise from the front left, seen from above by one who stands at its front. */
export const counterCorners = ['frontLeft', 'frontRight', 'backRight', 'backLeft'] as const satisfies readonly CounterCorner[];
export type CounterSideName = keyof Counter['sides'];
/** Sides of a top, each from its corner of the same place in `counterCorners` to the next. */
export const counterSides = ['front', 'right', 'back', 'left'] as const satisfies readonly CounterSideName[];

/** A top as its tapes make it, seen from above; x to the right along its front, y to the back. Lengths in mm, angles in rad. */
export interface CounterBody {
  /** Anticlockwise, with its rounds as arcs. */
  readonly path: ArcPath;
  /** The same as straight sides. */
  readonly outline: Polygon;
  /** Where its sides would meet. */
  readonly corners: Readonly<Record<CounterCorner, Vec>>;
  /** 0: sharp. */
  readonly radiusMm: Readonly<Record<CounterCorner, number>>;
  /** Nobody taped its rounds: its ends are taken as half circles. */
  readonly isFullRound: boolean;
  /** By how much an edge turns at a corner: π/2 at a square one. */
  readonly turnRad: Readonly<Record<CounterCorner, number>>;
  /** What is straight of a side, without its rounds. */
  readonly straightMm: Readonly<Record<CounterSideName, number>>;
  /** By how much its back is longer than its front, its right end deeper than its left, and its back stands to the right. Null: no tape says so. */
  readonly widerMm: number | null;
  readonly deeperMm: number | null;
  readonly rackMm: number | null;
  readonly sigmaMm: { readonly width: number; readonly depth: number; readonly radius: Readonly<Record<CounterCorner, number>> };
}

/** Something besides the tapes of its outline that does not fit. */
export type CounterDoubt =
  | EdgeDoubt
  | { readonly is: 'outside'; readonly part: string; readonly byMm: number }
  | { readonly is: 'round-untaped'; readonly part: null; readonly corner: CounterCorner }
  | { readonly is: 'rounds-meet'; readonly part: null; readonly side: CounterSideName; readonly byMm: number };

/** What is known of one top, and how sure: nothing without a width and a depth; doubtful too where its tapes agree but something else does not fit. */
export interface CounterSurvey extends TapedSurvey<CounterBody> {
  readonly edge: TapedEdge | null;
  readonly doubts: readonly CounterDoubt[];
}

/** What of a top its survey looks at besides the tapes. */
export type CounterParts = Pick<Counter, 'round' | 'hardware'>;

type RoundMeasure = Extract<CounterMeasure, `setback${string}` | `gap${string}`>;
const roundKeys: Readonly<Record<CounterCorner, readonly [setback: RoundMeasure, gap: RoundMeasure]>> = {
  frontLeft: ['setbackFrontLeft', 'gapFrontLeft'],
  frontRight: ['setbackFrontRight', 'gapFrontRight'],
  backRight: ['setbackBackRight', 'gapBackRight'],
  backLeft: ['setbackBackLeft', 'gapBackLeft'],
};
const outlineKeys = ['widthFront', 'widthMiddle', 'widthBack', 'depthLeft', 'depthMiddle', 'depthRight', 'fromBackLeft', 'fromFrontLeft'] as const satisfies readonly CounterMeasure[]; // prettier-ignore

/** Where a straight ends and a round begins is seen to this; a rule reads the way to the round to that, 1 σ. @source house rule */
const SETBACK_SIGMA_MM = 3;
const GAP_SIGMA_MM = 1;
/** How far tops come from the shop out of parallel and of square, 1 σ. @source house rule, docs/models/counters.md */
const USUAL_MM = { taper: 4, rack: 5 };

/** Seats of the numbers: width at the front, by how much the back is wider, how far it stands aside, depth, by how much the right end is deeper; radii follow. */
const SEAT = { width: 0, wider: 1, rack: 2, depth: 3, deeper: 4, radii: 5 } as const;

/** The round corners that were taped; `full`: all four are round and none was taped, so that its ends are half circles (a round table, where it is as wide as deep). */
export type Rounds = readonly CounterCorner[] | 'full';
const tapedOf = (rounds: Rounds): readonly CounterCorner[] => (rounds === 'full' ? [] : rounds);

interface Drawn {
  readonly corners: readonly Vec[];
  /** Angle inside, by corner. */
  readonly insideRad: readonly number[];
  readonly radiiMm: readonly number[];
}
function drawn(p: Numbers, rounds: Rounds): Drawn {
  const [w, wider, rack, d, deeper] = [p[SEAT.width]!, p[SEAT.wider]!, p[SEAT.rack]!, p[SEAT.depth]!, p[SEAT.deeper]!];
  const corners = [vec(0, 0), vec(w, 0), vec(w + rack + wider / 2, d + deeper / 2), vec(rack - wider / 2, d - deeper / 2)];
  const insideRad = corners.map((c, i) => {
    const [to, from] = [minus(corners[(i + 1) % 4]!, c), minus(corners[(i + 3) % 4]!, c)];
    return Math.acos(Math.min(1, Math.max(-1, (to.x * from.x + to.y * from.y) / (Math.hypot(to.x, to.y) * Math.hypot(from.x, from.y)))));
  });
  if (rounds === 'full') {
    // what is left of the shortest side between its two rounds is nothing
    const half = corners.map((c, i) => distance(c, corners[(i + 1) % 4]!) / (1 / Math.tan(insideRad[i]! / 2) + 1 / Math.tan(insideRad[(i + 1) % 4]! / 2)));
    return { corners, insideRad, radiiMm: corners.map(() => Math.min(...half)) };
  }
  const radiiMm = counterCorners.map((c) => {
    const seat = rounds.indexOf(c);
    return seat < 0 ? 0 : p[SEAT.radii + seat]!;
  });
  return { corners, insideRad, radiiMm };
}
/** From where two sides would meet to where the straight ends. @source closed form: the tangents from a point to a circle, `r / tan(θ/2)` */
const setbackOf = (radius: number, insideRad: number): number => radius / Math.tan(insideRad / 2);
/** From where two sides would meet to the round. @source closed form: centre on the bisector, `r·(1/sin(θ/2) − 1)` */
const gapOf = (radius: number, insideRad: number): number => radius * (1 / Math.sin(insideRad / 2) - 1);
const half = (a: Vec, b: Vec): Vec => vec((a.x + b.x) / 2, (a.y + b.y) / 2);

type OutlineMeasure = (typeof outlineKeys)[number];
/** What a perfect tape would read between the corners, from the front left one anticlockwise; `gap`: from a corner to its round. */
const outlineReadings: Readonly<Record<OutlineMeasure, (a: Vec, b: Vec, c: Vec, d: Vec, gap: (corner: number) => number) => number>> = {
  widthFront: (a, b) => distance(a, b),
  widthMiddle: (a, b, c, d) => distance(half(a, d), half(b, c)),
  widthBack: (_a, _b, c, d) => distance(d, c),
  depthLeft: (a, _b, _c, d) => distance(a, d),
  depthMiddle: (a, b, c, d) => distance(half(a, b), half(d, c)),
  depthRight: (_a, b, c) => distance(b, c),
  // over what is there: from the middle of one round to the middle of the other
  fromBackLeft: (_a, b, _c, d, gap) => distance(d, b) - gap(3) - gap(1),
  fromFrontLeft: (a, _b, c, _d, gap) => distance(a, c) - gap(0) - gap(2),
};
const isOutlineKey = (key: MeasureKey): key is OutlineMeasure => key in outlineReadings;

function readingOf(p: Numbers, rounded: Rounds, key: MeasureKey): number {
  const { corners, insideRad, radiiMm } = drawn(p, rounded);
  const gap = (i: number) => gapOf(radiiMm[i]!, insideRad[i]!);
  if (isOutlineKey(key)) return outlineReadings[key](...(corners as [Vec, Vec, Vec, Vec]), gap);
  const i = counterCorners.findIndex((name) => (roundKeys[name] as readonly MeasureKey[]).includes(key));
  if (i < 0) return 0;
  return key === roundKeys[counterCorners[i]!][0] ? setbackOf(radiiMm[i]!, insideRad[i]!) : gap(i);
}

/**
 * A top as few numbers, seen from above: width at its front, depth, by how much it widens and deepens, how far its back stands aside, and a radius for each rounded
 * corner that was taped. @source docs/models/counters.md
 */
export function counterModel(taken: ReadonlySet<MeasureKey>, rounds: Rounds): TapedModel {
  const rounded = tapedOf(rounds);
  const count = (start: string) => [...taken].filter((k) => k.startsWith(start)).length;
  const off = (seat: number, sigmaMm: number) => (p: Numbers): Usual => ({ offMm: p[seat]!, sigmaMm }); // prettier-ignore
  const usual = [
    { of: off(SEAT.wider, USUAL_MM.taper), isFixed: count('width') >= 2 },
    // across a circle every tape reads the same, however its corners stand
    { of: off(SEAT.rack, USUAL_MM.rack), isFixed: rounds !== 'full' && count('from') >= 1 },
    { of: off(SEAT.deeper, USUAL_MM.taper), isFixed: count('depth') >= 2 },
  ];
  return {
    keys: [...outlineKeys, ...rounded.flatMap((c) => roundKeys[c])],
    start(t) {
      const first = (...keys: MeasureKey[]) => keys.map((k) => t.get(k)).find((v) => v !== undefined);
      const [w, d] = [first('widthFront', 'widthMiddle', 'widthBack'), first('depthLeft', 'depthMiddle', 'depthRight')];
      if (!w || !d) return null;
      const radii = rounded.map((c) => t.get(roundKeys[c][0]) ?? (t.get(roundKeys[c][1]) ?? 0) / gapOf(1, Math.PI / 2));
      return [w, 0, 0, d, 0, ...radii];
    },
    reading: (p, key) => readingOf(p, rounds, key),
    usual: (p) => usual.map((u) => u.of(p)),
    fills: (p) => usual.filter((u) => !u.isFixed).map((u) => u.of(p)),
    sigmaMm: (key) => (key.startsWith('setback') ? SETBACK_SIGMA_MM : key.startsWith('gap') ? GAP_SIGMA_MM : null),
  };
}

const byCorner = <T>(values: readonly T[]): Record<CounterCorner, T> => Object.fromEntries(counterCorners.map((c, i) => [c, values[i]!])) as Record<CounterCorner, T>; // prettier-ignore

function bodyOf(fit: Fit, taken: ReadonlySet<MeasureKey>, rounds: Rounds): CounterBody {
  const p = fit.shape;
  const { corners, insideRad, radiiMm } = drawn(p, rounds);
  const spread = (f: (q: Numbers) => number) => Math.sqrt(Math.max(0, quadratic(slopeOf(f, p), fit.covariance)));
  const setbacks = radiiMm.map((r, i) => setbackOf(r, insideRad[i]!));
  const path = corners.flatMap((c, i): ArcPath => {
    if (radiiMm[i]! <= 0) return [{ ...c, bulge: 0 }];
    const toward = (other: Vec) => {
      const d = minus(other, c);
      const k = setbacks[i]! / Math.hypot(d.x, d.y);
      return { x: c.x + d.x * k, y: c.y + d.y * k };
    };
    // the arc turns by what the inside angle lacks of a half turn; a bulge is the tangent of its quarter
    return [
      { ...toward(corners[(i + 3) % 4]!), bulge: Math.tan((Math.PI - insideRad[i]!) / 4) },
      { ...toward(corners[(i + 1) % 4]!), bulge: 0 },
    ];
  });
  const length = (i: number) => distance(corners[i]!, corners[(i + 1) % 4]!);
  const count = (start: string) => [...taken].filter((k) => k.startsWith(start)).length;
  return {
    path,
    outline: flatten(path),
    corners: byCorner(corners),
    radiusMm: byCorner(radiiMm),
    isFullRound: rounds === 'full',
    turnRad: byCorner(insideRad.map((a) => Math.PI - a)),
    straightMm: Object.fromEntries(counterSides.map((s, i) => [s, length(i) - setbacks[i]! - setbacks[(i + 1) % 4]!])) as Record<CounterSideName, number>,
    widerMm: count('width') >= 2 ? length(2) - length(0) : null,
    deeperMm: count('depth') >= 2 ? length(1) - length(3) : null,
    rackMm: rounds !== 'full' && count('from') >= 1 ? p[SEAT.rack]! : null,
    sigmaMm: {
      width: Math.max(
        spread((q) => readingOf(q, rounds, 'widthFront')),
        spread((q) => readingOf(q, rounds, 'widthBack')),
      ),
      depth: Math.max(
        spread((q) => readingOf(q, rounds, 'depthLeft')),
        spread((q) => readingOf(q, rounds, 'depthRight')),
      ),
      radius: byCorner(counterCorners.map((c, i) => (radiiMm[i]! > 0 ? spread((q) => drawn(q, rounds).radiiMm[i]!) : 0))),
    },
  };
}

/** Judges what was taped of one top. @param readings in force, at most one per measure, mm */
export function judgeCounter(
  { round, hardware }: CounterParts,
  readings: readonly TapeReading[],
  { tape = handTape, levels = houseLevels }: { tape?: TapeError; levels?: TestLevels } = {},
): CounterSurvey {
  const isTaped = (c: CounterCorner) => readings.some((r) => r.lengthMm > 0 && (roundKeys[c] as readonly MeasureKey[]).includes(r.measure));
  const taped = counterCorners.filter((c) => round.includes(c) && isTaped(c));
  const rounds: Rounds = taped.length === 0 && counterCorners.every((c) => round.includes(c)) ? 'full' : taped;
  const isUsed = (key: MeasureKey) => isOutlineKey(key) || taped.some((c) => (roundKeys[c] as readonly MeasureKey[]).includes(key)); // prettier-ignore
  const used = readings.filter((r) => r.lengthMm > 0 && isUsed(r.measure));
  const taken = new Set(used.map((r) => r.measure));
  const model = counterModel(taken, rounds);
  const { edge, doubts: ofEdge } = judgeEdge(readings);
  const cannotCheck =
    rounds === 'full' || taken.has('fromBackLeft') || taken.has('fromFrontLeft') ? [] : ['No tape from corner to corner: whether it is square cannot be said.'];
  const { survey, asTaped: body } = judgeTaped({ model, used, cannotCheck, bodyOf: (fit) => bodyOf(fit, taken, rounds), tape, levels });
  if (!body) return { ...survey, edge, doubts: ofEdge };
  const doubts: CounterDoubt[] = [
    ...ofEdge,
    ...counterCorners
      .filter((c) => rounds !== 'full' && round.includes(c) && !isTaped(c))
      .map((corner) => ({ is: 'round-untaped' as const, part: null, corner })),
    ...counterSides.flatMap((side): CounterDoubt[] => (body.straightMm[side] < -SETBACK_SIGMA_MM ? [{ is: 'rounds-meet', part: null, side, byMm: -body.straightMm[side] }] : [])), // prettier-ignore
    ...hardware.flatMap((h): CounterDoubt[] => {
      const byMm = outsideByMm(h, body.outline);
      return byMm === null ? [] : [{ is: 'outside', part: h.id, byMm }];
    }),
  ];
  return { ...survey, status: doubtedIf(survey.status, doubts.length > 0), edge, doubts };
}

/** What a piece has to cover of a top: the box of every explanation of its tapes and two standard deviations. */
export function coverOfCounter(survey: CounterSurvey, sigmas = 2): { readonly widthMm: number; readonly heightMm: number } | null {
  if (survey.possible.length === 0) return null;
  const boxes = survey.possible.map((b) => ({ box: boundingBox(Object.values(b.corners)), b }));
  return {
    widthMm: Math.max(...boxes.map(({ box, b }) => box.maxX - box.minX + sigmas * b.sigmaMm.width)),
    heightMm: Math.max(...boxes.map(({ box, b }) => box.maxY - box.minY + sigmas * b.sigmaMm.depth)),
  };
}

/** Around a round, from fold to fold: what is straight of an edge and its arcs, as a tape that lies on it would read. @param sides that follow each other anticlockwise */
export function edgeRunMm(body: CounterBody, sides: readonly CounterSideName[]): { readonly lengthMm: number; readonly arcs: readonly EdgeArc[] } {
  let at = 0;
  const arcs: EdgeArc[] = [];
  sides.forEach((side, i) => {
    at += Math.max(0, body.straightMm[side]);
    const corner = counterCorners[(counterSides.indexOf(side) + 1) % 4]!;
    if (i === sides.length - 1 && sides.length < 4) return;
    const lengthMm = body.radiusMm[corner] * body.turnRad[corner];
    arcs.push({ corner, fromMm: at, lengthMm, turnRad: body.turnRad[corner], radiusMm: body.radiusMm[corner] });
    at += lengthMm;
  });
  return { lengthMm: at, arcs };
}
/** A corner on the way round an edge; without a radius a fold. */
export interface EdgeArc {
  readonly corner: CounterCorner;
  readonly fromMm: number;
  readonly lengthMm: number;
  readonly turnRad: number;
  readonly radiusMm: number;
}
