import type { Column, ColumnMeasure, MeasureKey } from '@yellow-pane/contracts';
import { vec, type Polygon } from '../geometry/index.js';
import { handTape, houseLevels, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import { PRIOR } from './hypotheses.js';
import { judgeTaped, type TapedSurvey } from './judge-taped.js';
import { quadratic, slopeOf, type Fit, type Numbers, type TapedModel, type Usual } from './taped-model.js';

/** A column as its tapes make it. Lengths in mm; front is where people come from, right and left are seen from there. */
export interface ColumnBody {
  readonly section: Column['section'];
  readonly girthMm: { readonly foot: number; readonly middle: number; readonly top: number };
  readonly heightMm: { readonly front: number; readonly right: number; readonly back: number; readonly left: number };
  /** Width seen from the front and from the side, at half height. */
  readonly acrossMm: { readonly front: number; readonly side: number };
  /** Of a square one. */
  readonly cornerRadiusMm: number;
  /** By how much it is wider at the top than at the foot; negative: it narrows. */
  readonly taperMm: number;
  /** By how much its foot stands towards the front and the right of its top; null: no line was hung. */
  readonly leanMm: { readonly front: number; readonly right: number } | null;
  /** Standard deviation of the largest girth and of the tallest height, mm. */
  readonly sigmaMm: { readonly girth: number; readonly height: number };
}

/** What is known of one column, and how sure: nothing without a girth and a height. */
export type ColumnSurvey = TapedSurvey<ColumnBody>;

/** The measures of a column in the order one walks round it with the tape. */
const columnOrder: readonly ColumnMeasure[] = [
  'girthFoot',
  'girthMiddle',
  'girthTop',
  'heightFront',
  'heightRight',
  'heightBack',
  'heightLeft',
  'acrossFront',
  'acrossSide',
  'cornerRadius',
  'plumbFront',
  'plumbRight',
  'plumbBack',
  'plumbLeft',
];
const plumbs: readonly ColumnMeasure[] = ['plumbFront', 'plumbRight', 'plumbBack', 'plumbLeft'];
/** The measures that a column of this section has. */
export const columnKeys = (section: Column['section']): readonly ColumnMeasure[] => columnOrder.filter((k) => section === 'square' || k !== 'cornerRadius');

/** A tape pulled round a column, a width between two straightedges, a radius by template, a gap to a hanging line, 1 σ. @source house rule */
const SIGMA_MM = { girth: 1.5, across: 2, radius: 1.5, plumb: 1.5 };
/** How oval, out of level, leaning and round-cornered columns usually are, 1 σ, and how far their middle swells. @source house rule, docs/models/columns.md */
const USUAL_MM = { taper: 30, oval: 15, tilt: 8, lean: 15, radius: 8, swell: 5 };

/** Girth of an ellipse. @source Ramanujan 1914, second approximation; its error stays under 1e-9 of the girth where one axis is at most 1.3 times the other */
export function girthOfOval(acrossMm: number, alongMm: number): number {
  const [a, b] = [acrossMm / 2, alongMm / 2];
  const h = ((a - b) / (a + b)) ** 2;
  return Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
}
/** Girth of a rectangle with round corners. */
export const girthOfSquare = (acrossMm: number, alongMm: number, radiusMm: number): number => 2 * (acrossMm + alongMm) - (8 - 2 * Math.PI) * radiusMm;

/** Where the numbers of the model stand; those a column has not, or nobody taped for, are left out of it. */
interface Seats {
  readonly across: 0;
  readonly taper: 1;
  readonly oval: 2;
  readonly height: 3;
  readonly tiltFront: 4;
  readonly tiltRight: 5;
  readonly radius: number | null;
  readonly leanFront: number | null;
  readonly leanRight: number | null;
  readonly swell: number | null;
  readonly count: number;
}
function seatsOf(section: Column['section'], taken: ReadonlySet<MeasureKey>, isSwelling: boolean): Seats {
  let count = 6;
  const take = (is: boolean): number | null => (is ? count++ : null);
  const radius = take(section === 'square');
  const leanFront = take(taken.has('plumbFront') || taken.has('plumbBack'));
  const leanRight = take(taken.has('plumbRight') || taken.has('plumbLeft'));
  return { across: 0, taper: 1, oval: 2, height: 3, tiltFront: 4, tiltRight: 5, radius, leanFront, leanRight, swell: take(isSwelling), count };
}
const at = (p: Numbers, seat: number | null): number => (seat === null ? 0 : p[seat]!);

/** Width at a height. @param up −½ at the foot, 0 in the middle, ½ at the top */
const acrossAt = (p: Numbers, s: Seats, up: number): number => p[s.across]! + p[s.taper]! * up + at(p, s.swell) * (1 - 2 * Math.abs(up));
function girthAt(section: Column['section'], p: Numbers, s: Seats, up: number): number {
  const [front, side] = [acrossAt(p, s, up) + p[s.oval]! / 2, acrossAt(p, s, up) - p[s.oval]! / 2];
  return section === 'round' ? girthOfOval(front, side) : girthOfSquare(front, side, at(p, s.radius));
}

const readingOf = (section: Column['section'], s: Seats): Record<ColumnMeasure, (p: Numbers) => number> => ({
  girthFoot: (p) => girthAt(section, p, s, -0.5),
  girthMiddle: (p) => girthAt(section, p, s, 0),
  girthTop: (p) => girthAt(section, p, s, 0.5),
  heightFront: (p) => p[s.height]! + p[s.tiltFront]!,
  heightBack: (p) => p[s.height]! - p[s.tiltFront]!,
  heightRight: (p) => p[s.height]! + p[s.tiltRight]!,
  heightLeft: (p) => p[s.height]! - p[s.tiltRight]!,
  acrossFront: (p) => acrossAt(p, s, 0) + p[s.oval]! / 2,
  acrossSide: (p) => acrossAt(p, s, 0) - p[s.oval]! / 2,
  cornerRadius: (p) => at(p, s.radius),
  plumbFront: (p) => at(p, s.leanFront) - p[s.taper]! / 2,
  plumbBack: (p) => -at(p, s.leanFront) - p[s.taper]! / 2,
  plumbRight: (p) => at(p, s.leanRight) - p[s.taper]! / 2,
  plumbLeft: (p) => -at(p, s.leanRight) - p[s.taper]! / 2,
});

const isColumnKey = (key: MeasureKey): key is ColumnMeasure => (columnOrder as readonly MeasureKey[]).includes(key);

function sigmaMm(key: MeasureKey): number | null {
  if (key.startsWith('girth')) return SIGMA_MM.girth;
  if (key.startsWith('across')) return SIGMA_MM.across;
  if (key === 'cornerRadius') return SIGMA_MM.radius;
  return key.startsWith('plumb') ? SIGMA_MM.plumb : null;
}

/**
 * A column as few numbers: width, taper along its height, oval, height, how its ends are out of level, corner radius, lean. Its middle may swell: that is
 * another truth, weighed beside the slips.
 * @source docs/models/columns.md
 */
export function columnModel(section: Column['section'], taken: ReadonlySet<MeasureKey>, isSwelling = false): TapedModel {
  const s = seatsOf(section, taken, isSwelling);
  const readings = readingOf(section, s);
  const count = (start: string) => [...taken].filter((k) => k.startsWith(start)).length;
  const off =
    (seat: number, sigmaMm: number) =>
    (p: Numbers): Usual => ({ offMm: p[seat]!, sigmaMm });
  const bothAcross = taken.has('acrossFront') && taken.has('acrossSide');
  const isTaped = (front: MeasureKey, back: MeasureKey) => (taken.has(front) && taken.has(back)) || count('height') >= 3;
  /** What is usual of each number, and whether the tapes fix it by themselves. */
  const numbers: readonly { readonly usual: (p: Numbers) => Usual; readonly isFixed: boolean }[] = [
    { usual: off(s.taper, USUAL_MM.taper), isFixed: count('girth') >= 2 },
    { usual: off(s.oval, USUAL_MM.oval), isFixed: bothAcross },
    { usual: off(s.tiltFront, USUAL_MM.tilt), isFixed: isTaped('heightFront', 'heightBack') },
    { usual: off(s.tiltRight, USUAL_MM.tilt), isFixed: isTaped('heightRight', 'heightLeft') },
    ...(s.radius === null ? [] : [{ usual: off(s.radius, USUAL_MM.radius), isFixed: taken.has('cornerRadius') || bothAcross }]),
    ...[s.leanFront, s.leanRight].flatMap((seat) => (seat === null ? [] : [{ usual: off(seat, USUAL_MM.lean), isFixed: true }])),
    ...(s.swell === null ? [] : [{ usual: off(s.swell, USUAL_MM.swell), isFixed: count('girth') === 3 }]),
  ];
  const model: TapedModel = {
    keys: columnKeys(section).filter((k) => !plumbs.includes(k) || (/Front|Back/.test(k) ? s.leanFront : s.leanRight) !== null),
    start(t) {
      const girth = t.get('girthMiddle') ?? t.get('girthFoot') ?? t.get('girthTop');
      const high = t.get('heightFront') ?? t.get('heightRight') ?? t.get('heightBack') ?? t.get('heightLeft');
      if (!girth || !high) return null;
      const p = new Array<number>(s.count).fill(0);
      p[s.across] = section === 'round' ? girth / Math.PI : girth / 4;
      p[s.height] = high;
      return p;
    },
    reading: (p, key) => (isColumnKey(key) ? readings[key](p) : 0),
    usual: (p) => numbers.map((n) => n.usual(p)),
    fills: (p) => numbers.filter((n) => !n.isFixed).map((n) => n.usual(p)),
    offsets: [...plumbs, 'cornerRadius'],
    sigmaMm,
  };
  if (isSwelling) return model;
  const swelling = columnModel(section, taken, true);
  const sizeMm = (p: Numbers) => p[p.length - 1]!;
  return { ...model, otherwise: [{ is: 'swelling', model: swelling, prior: PRIOR.bowed, spreadMm: USUAL_MM.swell, sizeMm }] };
}

function bodyOf(section: Column['section'], fit: Fit, taken: ReadonlySet<MeasureKey>, isSwelling = false): ColumnBody {
  const s = seatsOf(section, taken, isSwelling);
  const p = fit.shape;
  const r = readingOf(section, s);
  const girthMm = { foot: r.girthFoot(p), middle: r.girthMiddle(p), top: r.girthTop(p) };
  const heightMm = { front: r.heightFront(p), right: r.heightRight(p), back: r.heightBack(p), left: r.heightLeft(p) };
  const largest = (['girthFoot', 'girthMiddle', 'girthTop'] as const).reduce((a, b) => (r[b](p) > r[a](p) ? b : a));
  const tallest = (['heightFront', 'heightRight', 'heightBack', 'heightLeft'] as const).reduce((a, b) => (r[b](p) > r[a](p) ? b : a));
  const spread = (f: (q: Numbers) => number) => Math.sqrt(Math.max(0, quadratic(slopeOf(f, p), fit.covariance)));
  return {
    section,
    girthMm,
    heightMm,
    acrossMm: { front: r.acrossFront(p), side: r.acrossSide(p) },
    cornerRadiusMm: at(p, s.radius),
    taperMm: p[s.taper]!,
    leanMm: s.leanFront === null && s.leanRight === null ? null : { front: at(p, s.leanFront), right: at(p, s.leanRight) },
    sigmaMm: { girth: spread(r[largest]), height: spread(r[tallest]) },
  };
}

function untold(section: Column['section'], taken: ReadonlySet<MeasureKey>): string[] {
  const count = (start: string) => [...taken].filter((k) => k.startsWith(start)).length;
  const out: string[] = [];
  if (count('girth') < 2) out.push('One girth: whether it narrows cannot be said.');
  else if (count('girth') === 2) out.push('Two girths: a slip in one would look like a taper.');
  if (count('height') < 3) out.push('Fewer than three heights: whether floor and ceiling are level cannot be said.');
  if (count('across') < 2) out.push(section === 'round' ? 'Girth alone hides an oval: only two widths across, square to each other, show one.' : 'Without both widths the corner radius hides in the girth.'); // prettier-ignore
  if (count('plumb') === 0) out.push('No line was hung: whether it leans cannot be said.');
  return out;
}

/** Judges the tapes of one column. @param readings in force, at most one per measure, mm */
export function judgeColumn(
  section: Column['section'],
  readings: readonly TapeReading[],
  { tape = handTape, levels = houseLevels }: { tape?: TapeError; levels?: TestLevels } = {},
): ColumnSurvey {
  const used = readings.filter((r) => (columnKeys(section) as readonly MeasureKey[]).includes(r.measure));
  const taken = new Set(used.map((r) => r.measure));
  const model = columnModel(section, taken);
  return judgeTaped({ model, used, cannotCheck: untold(section, taken), bodyOf: (fit, isSwelling) => bodyOf(section, fit, taken, isSwelling), tape, levels })
    .survey;
}

/** A column seen from the front, standing on the ground line, its axis at 0. Anticlockwise from the lower left. */
export function columnOutline({ acrossMm, taperMm, heightMm }: ColumnBody): Polygon {
  const [foot, top, high] = [(acrossMm.front - taperMm / 2) / 2, (acrossMm.front + taperMm / 2) / 2, heightMm.front];
  return [vec(-foot, 0), vec(foot, 0), vec(top, high), vec(-top, high)];
}

/** The largest girth and the tallest height that any explanation leaves, with two standard deviations: what a piece has to cover; and by how much of girth it narrows at most. */
export function coverOfColumn(survey: ColumnSurvey, sigmas = 2): { girthMm: number; heightMm: number; narrowsByMm: number } | null {
  if (survey.possible.length === 0) return null;
  const girths = (b: ColumnBody) => Object.values(b.girthMm);
  const largest = (b: ColumnBody) => Math.max(...girths(b)) + sigmas * b.sigmaMm.girth;
  const tallest = (b: ColumnBody) => Math.max(...Object.values(b.heightMm)) + sigmas * b.sigmaMm.height;
  return {
    girthMm: Math.max(...survey.possible.map(largest)),
    heightMm: Math.max(...survey.possible.map(tallest)),
    narrowsByMm: Math.max(...survey.possible.map((b) => Math.max(...girths(b)) - Math.min(...girths(b)))),
  };
}
