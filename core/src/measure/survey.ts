import type { MeasureKey, PaneShape } from '@yellow-pane/contracts';
import { boundingBox, middle, vec, type ArcPath, type Polygon } from '../geometry/index.js';
import { adjustOpening, handTape, houseLevels, readingSigmaMm, type Adjustment, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import { weighExplanations, type NextTape, type Suspect } from './hypotheses.js';
import { bowKeys, crookednessOf, outlineOf, type Crookedness } from './opening.js';

/** What is known of one opening, and how sure. */
export interface Survey {
  /**
   * nothing: no size yet. two-tapes: a width and a height, enough to cut with overhang. unchecked: more tapes, but none
   * checks another. agreeing / doubtful: the redundant tapes pass or fail the global test. impossible: tapes that no four
   * sides can make.
   */
  readonly status: 'nothing' | 'two-tapes' | 'unchecked' | 'agreeing' | 'doubtful' | 'impossible';
  /** Null: four-sided. */
  readonly shape: PaneShape | null;
  /** Numbers of a four-sided opening are a `Shape`; of another, those of its model. */
  readonly adjustment: Adjustment<readonly number[]> | null;
  /** The outline with its arcs; null when there is no size. */
  readonly path: ArcPath | null;
  /** Standard deviation of the box round an outline that is not four-sided, mm; null for a four-sided one. */
  readonly boxSigmaMm: { readonly width: number; readonly height: number } | null;
  /** Curves as chords within 0.1 mm. Anticlockwise from the lower left, mm; null when there is no size. */
  readonly outline: Polygon | null;
  readonly crookedness: Crookedness | null;
  readonly suspects: readonly Suspect<readonly number[]>[];
  readonly next: NextTape | null;
  /** By how much the tapes miss each other, mm: the smallest slip that would explain them. */
  readonly disagreeMm: number;
  /**
   * Outlines of all explanations down to 2 %, most probable first: a cut that covers them all does not need to know which is
   * true. A side that may be bowed has a fifth corner at its middle.
   */
  readonly possibleOutlines: readonly Polygon[];
  /** Sides that stand out by a measured bow, mm. */
  readonly bowsMm: Readonly<Record<(typeof bowKeys)[number], number>>;
  /** Plain statements of what cannot be checked with these tapes. */
  readonly cannotCheck: readonly string[];
  /** Measures that take part in a broken triangle. */
  readonly impossible: readonly MeasureKey[];
  /** The explanation that this survey takes for true, signed for by a person; absent: the tapes speak for themselves. */
  readonly believed?: Suspect<readonly number[]>;
}

const triangles: readonly (readonly [MeasureKey, MeasureKey, MeasureKey])[] = [
  ['widthTop', 'heightRight', 'diagonalDown'],
  ['widthBottom', 'heightLeft', 'diagonalDown'],
  ['widthTop', 'heightLeft', 'diagonalUp'],
  ['widthBottom', 'heightRight', 'diagonalUp'],
];

/** Shorter is no opening, and no tape can be read so. @source common practice: the smallest mark of a tape */
const SHORTEST_TAPE_MM = 1;

/** Tapes that cannot close: one side of a triangle longer than the two others together (3 mm and 0.3 ‰ allowed). */
function brokenTriangles(readings: readonly TapeReading[]): MeasureKey[] {
  const value = (k: MeasureKey) => readings.find((r) => r.measure === k)?.lengthMm;
  const bad = new Set<MeasureKey>();
  for (const sides of triangles) {
    const lengths = sides.map(value);
    if (lengths.some((l) => l === undefined)) continue;
    const [longest, ...rest] = [...(lengths as number[])].sort((a, b) => b - a);
    if (longest! > rest[0]! + rest[1]! + 3 + longest! * 0.0003) sides.forEach((s) => bad.add(s));
  }
  for (const r of readings) if (!bowKeys.includes(r.measure as never) && !(r.lengthMm >= SHORTEST_TAPE_MM)) bad.add(r.measure);
  return [...bad];
}

function uncheckable(readings: readonly TapeReading[], a: Adjustment): string[] {
  const has = (...keys: MeasureKey[]) => keys.filter((k) => readings.some((r) => r.measure === k)).length;
  const out: string[] = [];
  if (has('diagonalDown', 'diagonalUp') === 0) out.push('No diagonal: whether the corners are square cannot be said.');
  else if (has('diagonalDown', 'diagonalUp') === 1) out.push('One diagonal only: a slip in it would look like a leaning opening.');
  if (has('widthTop', 'widthMiddle', 'widthBottom') === 1) out.push('One width: whether it narrows cannot be said.');
  if (has('heightLeft', 'heightMiddle', 'heightRight') === 1) out.push('One height: whether one side is lower cannot be said.');
  if (a.redundancy === 0 && out.length === 0) out.push('No tape here checks another: a slip would pass unseen.');
  if (a.isDetermined && has('diagonalDown', 'diagonalUp') === 2 && a.redundancy > 0)
    out.push('Two diagonals wrong by opposite amounts would look just like a lean; only a level or a framing square tells.');
  return out;
}

/** Side of the outline (anticlockwise from the sill) and its outward direction. */
const bowedSide: Record<(typeof bowKeys)[number], { index: number; x: number; y: number }> = {
  bowBottom: { index: 0, x: 0, y: -1 },
  bowRight: { index: 1, x: 1, y: 0 },
  bowTop: { index: 2, x: 0, y: 1 },
  bowLeft: { index: 3, x: -1, y: 0 },
};

function outlineOfSuspect(s: Suspect): Polygon {
  const straight = outlineOf(s.shape);
  if (s.hypothesis.kind !== 'bowed') return straight;
  const side = bowedSide[s.hypothesis.bow];
  const m = middle(straight[side.index]!, straight[(side.index + 1) % 4]!);
  const bulge = vec(m.x + side.x * s.slipMm, m.y + side.y * s.slipMm);
  return [...straight.slice(0, side.index + 1), bulge, ...straight.slice(side.index + 1)];
}

const empty = {
  shape: null,
  path: null,
  boxSigmaMm: null,
  crookedness: null,
  suspects: [],
  next: null,
  disagreeMm: 0,
  possibleOutlines: [],
  cannotCheck: [],
  impossible: [],
} as const;

/**
 * Judges the tapes of one four-sided opening.
 * @param readings readings in force, at most one per measure, mm
 * @param calledCrooked the person saw that it is crooked: expect more taper
 */
export function surveyOpening(
  readings: readonly TapeReading[],
  { calledCrooked = false, tape = handTape, levels = houseLevels }: { calledCrooked?: boolean; tape?: TapeError; levels?: TestLevels } = {},
): Survey {
  const bowsMm = Object.fromEntries(bowKeys.map((k) => [k, readings.find((r) => r.measure === k)?.lengthMm ?? 0])) as Survey['bowsMm'];
  const redundant = readings.filter((r) => r.measure !== 'widthLargest' && r.measure !== 'heightLargest');
  const hasOwnWidth = redundant.some((r) => r.measure.startsWith('width'));
  const hasOwnHeight = redundant.some((r) => r.measure.startsWith('height'));
  // the largest width of an overhang job is no independent tape once the places are taped one by one
  const used = readings.filter((r) => (r.measure === 'widthLargest' ? !hasOwnWidth : r.measure === 'heightLargest' ? !hasOwnHeight : true));
  const impossible = brokenTriangles(used);
  const adjustment = used.every((r) => bowKeys.includes(r.measure as never) || r.lengthMm >= SHORTEST_TAPE_MM) ? adjustOpening(used, tape, levels) : null;
  if (!adjustment) return { ...empty, status: impossible.length ? 'impossible' : 'nothing', adjustment: null, outline: null, bowsMm, impossible };
  const outline = outlineOf(adjustment.shape);
  const path = outline.map((p) => ({ ...p, bulge: 0 }));
  const base = { shape: null, boxSigmaMm: null, adjustment, outline, path, crookedness: crookednessOf(adjustment.shape), bowsMm, impossible };
  const tapes = used.filter((r) => !bowKeys.includes(r.measure as never));
  const isTwo = tapes.length === 2 && tapes.some((r) => r.measure.startsWith('width')) && tapes.some((r) => r.measure.startsWith('height'));
  if (isTwo) return { ...empty, ...base, status: 'two-tapes', possibleOutlines: [outline] };
  const cannotCheck = uncheckable(used, adjustment);
  if (impossible.length === 0 && adjustment.passes)
    return { ...empty, ...base, status: adjustment.redundancy === 0 ? 'unchecked' : 'agreeing', possibleOutlines: [outline], cannotCheck };
  const { suspects, next } = weighExplanations(used, calledCrooked, tape);
  const blamed = suspects.filter((s) => s.hypothesis.kind !== 'no-slip');
  return {
    ...base,
    status: impossible.length ? 'impossible' : 'doubtful',
    suspects,
    next,
    disagreeMm: blamed.length ? Math.min(...blamed.filter((s) => s.probability > 0.05 * blamed[0]!.probability).map((s) => Math.abs(s.slipMm))) : 0,
    possibleOutlines: suspects.filter((s) => s.probability >= 0.02).map(outlineOfSuspect),
    cannotCheck,
  };
}

/** The adjustment of a four-sided opening; null for another shape or none. */
export const openingOf = (survey: Survey): Adjustment | null => (survey.shape ? null : (survey.adjustment as Adjustment | null));

/** The upright rectangle that surely holds the opening: all explanations, measured bows and `sigmas` standard deviations. */
export function enclosingRectangle(survey: Survey, sigmas = 2): { widthMm: number; heightMm: number; marginMm: { width: number; height: number } } | null {
  if (!survey.outline || !survey.adjustment) return null;
  const outlines = survey.possibleOutlines.length ? survey.possibleOutlines : [survey.outline];
  const boxes = outlines.map(boundingBox);
  const out = (v: number) => Math.max(0, v);
  if (survey.boxSigmaMm) {
    const margin = { width: sigmas * survey.boxSigmaMm.width, height: sigmas * survey.boxSigmaMm.height };
    return {
      widthMm: Math.max(...boxes.map((b) => b.maxX - b.minX)) + margin.width,
      heightMm: Math.max(...boxes.map((b) => b.maxY - b.minY)) + margin.height,
      marginMm: margin,
    };
  }
  const a = openingOf(survey)!;
  const two = survey.status === 'two-tapes';
  const sigmaOf = (keys: MeasureKey[]) => Math.max(...keys.map((k) => readingSigmaMm(a, k)));
  const width = sigmas * (two ? readOnly(a, 'width') : sigmaOf(['widthTop', 'widthBottom']));
  const height = sigmas * (two ? readOnly(a, 'height') : sigmaOf(['heightLeft', 'heightRight']));
  // an adjusted outline lies between tapes that disagree: never narrower than the largest of them
  const largest = (kind: 'width' | 'height') => Math.max(0, ...a.readings.filter((r) => r.measure.startsWith(kind)).map((r) => r.readMm));
  return {
    widthMm: Math.max(largest('width'), Math.max(...boxes.map((b) => b.maxX - b.minX)) + width) + out(survey.bowsMm.bowLeft) + out(survey.bowsMm.bowRight),
    heightMm: Math.max(largest('height'), Math.max(...boxes.map((b) => b.maxY - b.minY)) + height) + out(survey.bowsMm.bowTop) + out(survey.bowsMm.bowBottom),
    marginMm: { width, height },
  };
}

/** With two tapes of the largest sizes only the tape's own error counts: the person chose the largest place. */
const readOnly = (a: Adjustment, kind: 'width' | 'height'): number => a.readings.find((r) => r.measure.startsWith(kind))?.sigmaMm ?? 0;
